import { toldLast } from '../fixtures/testing'

function told(start: string, ...words: string[]) {
  const line = toldLast(start, ...words)
  const value = (id: string) => line.readouts.find((r) => r.id === id)?.value
  return { ...line, value, texts: line.conclusions.map(({ text }) => text) }
}

describe('a position: rest, turning back, speeding up', () => {
  // s = t³ − 6t² + 9t: v = 3(t − 1)(t − 3), a = 6(t − 2); 4 out, 4 back and 20 on. By hand (the
  // particle of J. Stewart, Calculus, section on rates of change, from memory).
  const line = told('s(t) = t^3 - 6t^2 + 9t for 0<=t<=5', 'when is s at rest')
  test('by s′ and s′′', () => {
    expect(line.sentence).toBe('Speeding up and slowing down of s on [0, 5], read as a position')
    expect(line.texts).toEqual([
      'It is at rest at t = 1, because s′ = 0 there, and turns back: s′ goes + to −.',
      'It is at rest at t = 3, because s′ = 0 there, and turns back: s′ goes − to +.',
      'It slows down from t = 0 to 1, because s′ > 0 and s′′ < 0 inside.',
      'It speeds up from t = 1 to 2, because s′ < 0 and s′′ < 0 inside.',
      'It slows down from t = 2 to 3, because s′ < 0 and s′′ > 0 inside.',
      'It speeds up from t = 3 to 5, because s′ > 0 and s′′ > 0 inside.',
    ])
  })
  test('how far it comes and how far it goes', () => {
    expect(line.value('displacement')).toBeCloseTo(20, 10)
    expect(line.value('distance')).toBeCloseTo(28, 10)
  })
  test('unless it is said to be a velocity', () => {
    const { texts } = told('s(t) = t - 1 for 0<=t<=3', 'speeding up of s as a velocity')
    expect(texts[0]).toBe(
      'It is at rest at t = 1, because s = 0 there, and turns back: s goes − to +.',
    )
  })
  test('against another letter, and by another name, a curve is a velocity', () => {
    expect(told('s(u) = u for 0<=u<=3', 'speeding up of s').sentence).toMatch(/velocity$/)
    expect(told('v(t) = t for 0<=t<=3', 'speeding up of v').sentence).toMatch(/velocity$/)
    expect(told('x(t) = t for 0<=t<=3', 'speeding up of x').sentence).toMatch(/position$/)
  })
})

describe('rest and turning back are two things', () => {
  test('a velocity that leaps over 0 turns without rest', () => {
    expect(told('x(t) = |t - 2| for 0<=t<=4', 'where does x turn back').texts[0]).toBe(
      'It turns back at t = 2 without being at rest, because x′ goes − to + there with a break.',
    )
  })
  test('a velocity that touches 0 rests without turning', () => {
    expect(told('s(t) = t^3 for -1<=t<=1', 'motion of s').texts[0]).toBe(
      'It is at rest at t = 0, because s′ = 0 there, and does not turn back: s′ is + on both sides.',
    )
  })
  test('a stretch of rest is a stretch', () => {
    expect(told('v(t) = max(0, t - 1) for 0<=t<=3', 'at rest of v').texts).toEqual([
      'It is at rest from t = 0 to 1, because v = 0 inside.',
      'It speeds up from t = 1 to 3, because v > 0 and v′ > 0 inside.',
    ])
  })
  test('phases are maximal: an acceleration that touches 0 parts none', () => {
    expect(told('v(t) = (t - 1)^3 + 2 for 0<=t<=3', 'speeding up of v').texts).toEqual([
      'It speeds up from t = 0 to 3, because v > 0 and v′ > 0 inside but for t = 1, where v′ is 0 or missing.',
    ])
  })
  test('a constant velocity keeps its speed', () => {
    expect(told('s(t) = 2t for 0<=t<=3', 'motion of s').texts).toEqual([
      'It keeps its speed from t = 0 to 3, because s′ > 0 and s′′ = 0 inside.',
    ])
  })
  test('nothing moves by a jump: no distance is told', () => {
    const { readouts, notes } = told(
      's(t) = t if t < 1; t + 5 otherwise for 0<=t<=3',
      'motion of s',
    )
    expect(readouts).toEqual([])
    expect(notes[0]).toBe(
      's is not continuous at t = 1: nothing moves so, and no distance is told.',
    )
  })
})

describe('touching is not crossing, undefined is not meeting, equal all along is said', () => {
  const between = (f: string, g: string) =>
    told(`f(x) = ${f} for -2<=x<=2`, `let g(x) = ${g}`, 'between f and g')
  test('touching', () => {
    const { notes, verdict } = between('x^2', '2x - 1')
    expect(notes).toEqual([
      'From −2 to 2 f lies above: 28/3 ≈ 9.333.',
      'At x = 1 they touch and do not cross.',
    ])
    expect(verdict!.text).toBe('They do not cross on this span, though they touch: proven')
    const met = told('f(x) = x^2 for -2<=x<=2', 'let g(x) = 2x - 1', 'where does f meet g')
    expect(met.notes).toContain('They touch at x = 1 and do not cross there.')
    expect(told('f(x) = x^2 for -2<=x<=2', 'where f = 0').notes).toContain(
      'f touches that value at x = 0 and does not cross it there.',
    )
    expect(told('f(x) = x^3 for -2<=x<=2', 'where f = 0').notes.join()).not.toMatch(/touch/)
  })
  test('a hole is no meeting', () => {
    const { notes, verdict } = between('(x^2 - 1)/(x - 1)', '2')
    expect(notes.at(-1)).toBe(
      'At x = 1 they change sides where one of them has no value, without meeting.',
    )
    expect(verdict!.text).toBe('They do not cross on this span: proven')
  })
  test('equal all along', () => {
    expect(between('|x|', 'x').notes).toEqual([
      'From −2 to 0 f lies above: 4.',
      'From 0 to 2 they are equal all along.',
    ])
  })
})

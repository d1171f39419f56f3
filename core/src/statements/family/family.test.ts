import {
  compile,
  createEvaluator,
  createSceneMaker,
  parseFormula,
  say,
  startStudy,
  workOut,
} from '../..'
import { marksOfLast, studyOf } from '../fixtures/testing'
import { chordEnvelope, normalEnvelope } from './envelope'

function said(start: string, ...words: string[]) {
  const study = studyOf(start, ...words)
  const line = workOut(study).lines.at(-1)!
  const marks = marksOfLast(study)
  return { ...line, study, marks }
}
const linesOf = (found: ReturnType<typeof said>) => {
  const mark = found.marks.find((m) => m.kind === 'family')
  return mark?.kind === 'family' ? mark.lines : []
}
const f = 'f(x) = x^2/4 for -4 <= x <= 4'

test('tangents: each touches the curve with its slope, from end to end in equal steps', () => {
  const found = said(f, 'tangents to f for x from -3 to 3, 121 of them')
  expect(found.sentence).toBe('Tangents to f for x from −3 to 3, 121 of them')
  const lines = linesOf(found)
  expect(lines).toHaveLength(121)
  lines.forEach(({ x, y, slope }, i) => {
    expect(x).toBeCloseTo(-3 + i * 0.05, 12)
    expect(y).toBeCloseTo((x * x) / 4, 12)
    expect(slope).toBeCloseTo(x / 2, 12)
  })
})

test('normals stand across, upright where the slope is 0; chords end on the curve', () => {
  const normals = linesOf(said(f, 'normals to f for x from -2 to 2, 5 of them'))
  expect(normals.map(({ slope }) => slope)).toEqual([1, 2, Infinity, -2, -1])
  const chords = linesOf(said(f, 'chords of width 2 to f for x from -3 to 1, 5 of them'))
  for (const { x, y, slope, run } of chords) {
    expect(run).toBe(2)
    expect(y + slope * run).toBeCloseTo((x + 2) ** 2 / 4, 12)
  }
})

test('members of a slider are curves of their own', () => {
  const found = said(f, 'let k = 1', 'let g(x) = k x^2', 'g for k from 0 to 3, 16 of them')
  expect(found.sentence).toBe('g for k from 0 to 3, 16 of them')
  expect(found.marks.filter((m) => m.kind === 'graph')).toHaveLength(16)
  expect(found.readouts[0]!.text).toBe('16')
})

describe('envelopes', () => {
  const read = (text: string) => {
    const parsed = parseFormula(text)
    if (!parsed.ok) throw new Error(text)
    return compile(parsed.tree)
  }
  test('of the normals of y = x²: the semicubical parabola 27x² = 16(y − 1/2)³', () => {
    // The evolute of the parabola; any text on curves, from memory.
    for (const [x, y] of normalEnvelope(read('x^2'), -1, 1)) {
      expect(27 * x * x).toBeCloseTo(16 * (y - 0.5) ** 3, 8)
    }
  })
  test('of the chords of y = x² of width w: the parabola y = x² + w²/4', () => {
    // The chord from s has slope 2s + w and y = (2s + w)x − s² − sw; the discriminant in s gives it.
    for (const [x, y] of chordEnvelope(read('x^2'), -2, 2, 1.5)) {
      expect(y).toBeCloseTo(x * x + 1.5 ** 2 / 4, 9)
    }
  })
})

test('members without a value are left out and counted', () => {
  const found = said('f(x) = sqrt x for 0 <= x <= 4', 'tangents to f for x from -1 to 3, 5 of them')
  expect(found.readouts[0]!.text).toBe('3 of 5')
  expect(found.notes[0]).toBe('2 of them have no value or no slope, and are left out.')
})

describe('what stands in the way is told with a way out', () => {
  test.each([
    ['tangents to f for x from -3 to 3, 5000 of them', /from 2 to 2000 members, and not 5000/],
    ['tangents to f for x from -3 to 3, 1 of them', /from 2 to 2000 members, and not 1/],
    ['tangents to f for x from 3 to -3, 20 of them', /x runs from 3 to −3/],
    ['tangents to f for x from 10 to 20, 20 of them', /no member has a value/],
    ['chords of width 0 to f for x from 0 to 1, 20 of them', /width 0/],
    ['f for k from 0 to 1, 5 of them', /f does not hang on k/],
    ['tangents to f for k from 0 to 1, 5 of them', /it is x that runs, and not k/],
  ])('%s', (words, message) => {
    const { problems } = said(f, words)
    expect(problems[0]?.message).toMatch(message)
    expect(problems[0]?.fix).toBeTruthy()
  })
  test.each([
    ['tangents to f through (0, -1)', /^Tangents to f through \(0, −1\)/],
    ['note a family of lines', /^Note “a family of lines”/],
    ['let family = 3', /family/],
    ['all tangents to f with slope 1', /^Tangents to f with slope 1/],
  ])('“%s” asks for something else', (words, sentence) => {
    const next = say(startStudy(f), words)
    expect('problem' in next ? next.problem : next.sentence).toMatch(sentence)
  })
  test('words that say nothing known are not dropped', () => {
    expect(say(startStudy(f), 'tangents to f, 20 of them in gold')).toHaveProperty('problem')
  })
})

test('a thousand lines are drawn as a few paths, one for each colour, within the frame', () => {
  const { study } = said(f, 'tangents to f for x from -4 to 4, 1000 of them')
  const evaluation = createEvaluator()(study)
  const lane = study.lanes[0]!.id
  const scene = createSceneMaker()(evaluation, { width: 800, heights: { [lane]: 500 } }, new Map())
  const items = scene.lanes[0]!.items.filter((item) => item.key.includes('family'))
  expect(items.length).toBeGreaterThan(20)
  expect(items.length).toBeLessThanOrEqual(48)
  const drawn = items.flatMap((item) =>
    item.kind === 'path' ? [...item.d.matchAll(/M(\S+) (\S+)L(\S+) (\S+?)(?=M|$)/g)] : [],
  )
  expect(drawn).toHaveLength(1000)
  for (const [, x0, y0, x1, y1] of drawn) {
    for (const x of [x0, x1].map(Number)) expect(x).toBeGreaterThanOrEqual(-0.1)
    for (const x of [x0, x1].map(Number)) expect(x).toBeLessThanOrEqual(800.1)
    for (const y of [y0, y1].map(Number)) expect(Math.abs(y - 250)).toBeLessThanOrEqual(270)
  }
})

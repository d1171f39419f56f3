import fc from 'fast-check'
import {
  advance,
  advanceAll,
  chooseMoving,
  type Course,
  createStudy,
  type Manner,
  motionSentence,
  restAt,
  usualMotion,
  movingSliders,
  type Slider,
  startCourse,
  type Study,
  valueOn,
  shownStudy,
} from '..'
import { equalHeights, setFrame, setLaneFrame, zoomed } from './framing'

const slider = (manner: Manner, pace = 4, over: Partial<Slider> = {}): Slider => ({
  name: 'a',
  value: 0,
  from: 0,
  to: 10,
  step: 0.01,
  place: true,
  scale: 'even',
  motion: { ...usualMotion, moves: true, manner, pace },
  ...over,
})
/** The values after each of some stretches of time. */
function ride(s: Slider, seconds: number[]): number[] {
  let course: Course = startCourse(s)
  return seconds.map((t) => valueOn((course = advance(course, s, t)), s))
}

test('there and back turns at both ends', () => {
  expect(ride(slider('there and back'), [2, 2, 2, 2, 1])).toEqual([5, 10, 5, 0, 2.5])
})
test('round again leaps back to the beginning', () => {
  expect(ride(slider('round again'), [3, 2])).toEqual([7.5, 2.5])
})
test('once stops at the end, and begins anew from there', () => {
  expect(ride(slider('once'), [3, 2, 5])).toEqual([7.5, 10, 10])
  expect(startCourse(slider('once', 4, { value: 10 }))).toMatchObject({ share: 0 })
})
test('a coarse step jerks, a fine one does not', () => {
  expect(ride(slider('once', 10, { step: 2 }), [0.9, 0.2, 1])).toEqual([0, 2, 2])
})

test('how time is cut up makes no difference, and no value leaves the bounds', () => {
  const manners = fc.constantFrom<Manner>('there and back', 'round again', 'once')
  fc.assert(
    fc.property(
      manners,
      fc.array(fc.double({ min: 0, max: 3, noNaN: true }), { minLength: 1, maxLength: 20 }),
      (manner, times) => {
        const s = slider(manner, 2.5)
        let course = startCourse(s)
        for (const t of times) {
          course = advance(course, s, t)
          expect(course.share).toBeGreaterThanOrEqual(0)
          expect(course.share).toBeLessThanOrEqual(1)
        }
        const total = times.reduce((a, b) => a + b, 0)
        const whole = advance(startCourse(s), s, total).share
        const apart = Math.abs(whole - course.share)
        // Round again, 0 and 1 are one place.
        expect(Math.min(apart, manner === 'round again' ? 1 - apart : apart)).toBeLessThan(1e-9)
      },
    ),
  )
})

function study(): Study {
  const made = createStudy('k sin(m x)', ['k', 'm'])
  if (!made.ok) throw new Error('unreadable')
  return made.study
}

test('the first slider moves until others are chosen, and then goes on', () => {
  const names = (s: Study) => movingSliders(s).map((m) => m.name)
  expect(names(study())).toEqual(['k'])
  const both = chooseMoving('m', true)(study())
  expect(names(both)).toEqual(['k', 'm'])
  expect(names(chooseMoving('k', false)(both))).toEqual(['m'])
  expect(motionSentence(both)).toBe(
    'k moves there and back · 8 s a pass, m moves there and back · 8 s a pass',
  )
})

test('live values change nothing but the sliders they name', () => {
  const before = study()
  const after = shownStudy(before, { live: { m: 3 } })
  expect(after.sliders.map((s) => s.value)).toEqual([1, 3])
  expect(after.lines).toBe(before.lines)
  expect(shownStudy(before, {})).toBe(before)
  expect(shownStudy(before, { live: { nobody: 3 } })).toBe(before)
})

describe('frames', () => {
  test('zooming keeps the point it is about', () => {
    expect(zoomed([0, 10], 2.5, 0.5)).toEqual([1.25, 6.25])
  })
  test('what cannot be shown changes nothing', () => {
    const before = study()
    for (const frame of [
      [3, 3],
      [5, 1],
      [0, NaN],
      [1, 1 + 1e-16],
      [-1e300, 1e300],
    ] as const) {
      expect(setFrame(frame)(before)).toBe(before)
      expect(setLaneFrame('lane1', frame)(before)).toBe(before)
    }
  })
  test('equal scale gives a unit the same length both ways', () => {
    const [low, high] = equalHeights([-1, 3], [0, 10], 800, 400)
    expect((high - low) / 400).toBeCloseTo(10 / 800, 12)
    expect((high + low) / 2).toBe(1)
  })
})

test('a motion rests at zeros and turning points where it is asked to', () => {
  const s = slider('once', 10, {
    motion: { ...usualMotion, manner: 'once', pace: 10, pauses: true },
  })
  let course = startCourse(s)
  const step = (seconds: number) => {
    course = restAt(course, advance(course, s, seconds), s, [3.3, 7])
    return valueOn(course, s)
  }
  expect(step(3)).toBe(3)
  // It passes 3.3 within this second, and stays there for a while.
  expect(step(1)).toBe(3.3)
  expect(step(1)).toBe(3.3)
  expect(step(0.5)).toBe(3.3)
  expect(step(1)).toBeCloseTo(4.3, 10)
  const without = { ...s, motion: { ...s.motion, pauses: false } }
  expect(restAt(startCourse(s), advance(startCourse(s), without, 4), without, [3.3]).resting).toBe(
    0,
  )
})

describe('one after another', () => {
  const named = (name: string, turn: number, manner: Manner, over = {}): Slider => {
    const s = slider(manner, 4)
    return { ...s, name, motion: { ...s.motion, turn, ...over } }
  }
  const values = (sliders: Slider[], times: number[]) => {
    let courses = new Map(sliders.map((s) => [s.name, startCourse(s)]))
    return times.map((t) => {
      courses = advanceAll(courses, sliders, t)
      return sliders.map((s) => valueOn(courses.get(s.name)!, s))
    })
  }
  test('the second waits until the first has come to its end', () => {
    const both = [named('a', 1, 'once'), named('n', 2, 'once')]
    expect(values(both, [2, 2, 1, 3])).toEqual([
      [5, 0],
      [10, 0],
      [10, 2.5],
      [10, 10],
    ])
  })
  test('what would go on for ever makes one round, the last goes on', () => {
    const both = [named('a', 1, 'there and back'), named('n', 2, 'round again')]
    expect(values(both, [4, 4, 3, 3])).toEqual([
      [10, 0],
      [0, 0],
      [0, 7.5],
      [0, 5],
    ])
    expect(values([named('a', 1, 'round again'), named('n', 2, 'once')], [3, 3, 2])).toEqual([
      [7.5, 0],
      [10, 0],
      [10, 5],
    ])
  })
  test('those of one turn move together', () => {
    const all = [named('a', 1, 'once'), named('b', 1, 'once', { pace: 8 }), named('n', 2, 'once')]
    expect(values(all, [4, 4, 4])).toEqual([
      [10, 5, 0],
      [10, 10, 0],
      [10, 10, 10],
    ])
  })
  test('a first pass takes its own time', () => {
    const slow = named('a', 1, 'round again', { firstPass: 10 })
    expect(ride(slow, [5, 5.5, 0.5])).toEqual([5, 1.25, 2.5])
  })
  test('the sentence says what comes first', () => {
    const study = createStudy('q(t) = a n t', ['a', 'n'])
    if (!study.ok) throw new Error('unreadable')
    const moving: Study = {
      ...study.study,
      sliders: [named('a', 1, 'once', { firstPass: 20, stop: "q'(a) = 0" }), named('n', 2, 'once')],
    }
    expect(motionSentence(moving)).toBe(
      "first a goes once · 20 s the first pass, then 4 s a pass · until q'(a) = 0, then n goes once · 4 s a pass",
    )
  })
})

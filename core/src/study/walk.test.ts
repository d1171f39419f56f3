import { advanceWalk, startWalk, takeWalk, type Walk } from '..'
import { readFormula } from '../calculus/readFormula'
import { flood } from './fixtures/testing'

const walk: Walk = {
  line: 'line2',
  slider: 'a',
  from: '2',
  distances: [1, 0.1, 0.01],
  framed: false,
}

describe('a walk through ever smaller distances', () => {
  test('rests at each distance, takes one at a time and ends', () => {
    const first = startWalk(walk, flood())!
    expect(first.at).toBe(0)
    expect(advanceWalk(first, 0.5)!.at).toBe(0)
    const second = advanceWalk(first, 1)!
    expect(second.at).toBe(1)
    // A long pause of the page is no leap over a distance.
    const third = advanceWalk(second, 100)!
    expect(third.at).toBe(2)
    expect(advanceWalk(third, 1)).toBeNull()
  })

  test('puts the slider where it has come to, and widens its bounds for it', () => {
    const course = { ...startWalk(walk, flood())!, at: 2 }
    const [slider] = takeWalk(course)(flood()).sliders
    expect(slider).toMatchObject({ name: 'a', value: 0.01 })
    const far = takeWalk({ ...course, walk: { ...walk, distances: [50, 50, 50] } })(flood())
    expect(far.sliders[0]).toMatchObject({ value: 50, to: 50 })
  })

  test('a framed one shows both ends: six distances wide, from one before the place', () => {
    const course = startWalk({ ...walk, framed: true }, flood())!
    expect(takeWalk(course)(flood()).frame).toEqual([2 - 3, 2 + 6])
  })

  test('there is none without its slider or without distances', () => {
    expect(startWalk({ ...walk, slider: 'z' }, flood())).toBeNull()
    expect(startWalk({ ...walk, distances: [] }, flood())).toBeNull()
  })
})

test('a text is read once beside the same names, however many ask', () => {
  const names = { variable: 't', names: ['a'], curves: ['q'] }
  const first = readFormula('a q(t) + sin t', names)
  expect(readFormula('a q(t) + sin t', { ...names })).toBe(first)
  expect(readFormula('a q(t) + sin t', { ...names, names: ['b'] })).not.toBe(first)
})

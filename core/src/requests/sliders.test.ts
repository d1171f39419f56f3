/* Sliders asked for by their name, as they would be in a worksheet or by a teacher. */
import { createStudy, offersFor, whyNothing } from '..'
import { say } from '../scripting/say'

const start = () => {
  const created = createStudy('f(x) = x^2, 0 <= x <= 4')
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}
const first = (words: string) => offersFor(words, start(), null)[0]

test.each([
  ['let a = 3', 'a', 3, -10, 10, 0.1],
  ['Let k = 0.5.', 'k', 0.5, -10, 10, 0.1],
  ['let a = 30', 'a', 30, -10, 30, 0.1],
  ['let a = −20', 'a', -20, -20, 10, 0.1],
  ['let a = 3 from 0 to 8', 'a', 3, 0, 8, 0.1],
  ['let a_1 = 2', 'a₁', 2, -10, 10, 0.1],
  ['slider u from −3 to 3 by 0.1', 'u', 1, -3, 3, 0.1],
  ['slider u from -3 to 3', 'u', 1, -3, 3, 0.1],
  ['slider k = 2 between 0 and 5', 'k', 2, 0, 5, 0.1],
  ['a slider for b from 2 to 6 in steps of 0.5', 'b', 2, 2, 6, 0.5],
  ['add a slider called c', 'c', 1, -10, 10, 0.1],
  ['parameter k in [0, 1], step 0.05', 'k', 1, 0, 1, 0.05],
  ['slider θ = pi/2 from 0 to 2pi', 'θ', Math.PI / 2, 0, 2 * Math.PI, 0.1],
])('“%s” makes a slider', (words, name, value, from, to, step) => {
  const study = first(words)!.edit(start())
  expect(study.lines).toHaveLength(1)
  expect(study.sliders).toEqual([
    expect.objectContaining({ name, value, from, to, step, place: false }),
  ])
})

test('the sentence has the numbers as they were typed', () => {
  expect(first('slider θ = pi/2 from 0 to 2pi')!.sentence).toBe(
    'Slider θ = pi/2, from 0 to 2pi by 0.1',
  )
  expect(first('let a = -3')!.sentence).toBe('Slider a = −3, from −10 to 10 by 0.1')
})

test('a slider that is there is set, and takes new bounds', () => {
  const study = first('let a = 3')!.edit(start())
  const again = say(study, 'let a = 5')
  expect(again).toMatchObject({ sentence: 'Set a to 5' })
  expect(again.study.sliders).toEqual([expect.objectContaining({ name: 'a', value: 5 })])
  const bounded = say(again.study, 'slider a from 0 to 6 by 0.5')
  expect(bounded).toMatchObject({ sentence: 'Set a = 5, from 0 to 6 by 0.5' })
  expect(bounded.study.sliders).toEqual([
    expect.objectContaining({ name: 'a', value: 5, from: 0, to: 6, step: 0.5 }),
  ])
})

test.each(['let k(x) = 3', 'let k = 2x', 'let y = 3', 'let g = 2'])('“%s” is a curve', (words) => {
  const study = first(words)!.edit(start())
  expect([study.lines.length, study.sliders.length]).toEqual([2, 0])
})

test.each([
  ['slider u from 3 to −3', 'A slider goes from a smaller number to a larger one.'],
  ['slider u from 0 to 5 by 0', 'A slider’s step is larger than 0.'],
  ['slider u = 9 from 0 to 5', '9 lies outside the slider’s bounds.'],
  ['slider x', 'x is the variable: a slider takes another letter.'],
  ['slider f', 'There is a curve f already: a slider takes another letter.'],
  ['slider e = 3', 'e means something else in a formula: a slider takes another letter or word.'],
  ['slider u from 0 to the lagoon', '“the lagoon” is no number for the slider u.'],
])('“%s” adds nothing and says why', (words, why) => {
  expect(first(words)).toBeUndefined()
  expect(whyNothing(words, start())).toBe(why)
})

test('a curve never takes the letter of a slider, whose formulas would mean another thing', () => {
  const study = ['let k = 3', 'let g(x) = k x'].reduce(
    (now, words) => offersFor(words, now, null)[0]!.edit(now),
    start(),
  )
  for (const words of ['let k(x) = x + 1', "k'(x) = 2x", 'k(x) = x + 1']) {
    expect(offersFor(words, study, null)).toEqual([])
  }
  for (const words of ['let k(x) = x + 1', "k'(x) = 2x"])
    expect(whyNothing(words, study)).toBe(
      'k is a slider, and what is built on it would change: give the curve another letter, let r(x) = …',
    )
  expect(offersFor('let k = 4', study, null).map((o) => o.sentence)).toEqual(['Set k to 4'])
})

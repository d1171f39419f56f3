import { createStudy, offersFor, type Study } from '..'

export function flood(): Study {
  const created = createStudy('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return { ...created.study, variable: { letter: 't', name: 'time', unit: 'h' } }
}

export const added = (study: Study, words: string): Study => {
  const offer = offersFor(words, study, null)[0]
  if (!offer) throw new Error(`nothing is offered for ${words}`)
  return offer.edit(study)
}

/** One of each kind of line, by the words a person says; a second curve comes first. */
export const spoken: readonly (readonly [words: string, sentence: string])[] = [
  ['let r(t) = 5 - t/4', 'Let r(t) = 5 − t/4 for 0 ≤ t ≤ 10'],
  ['rate', 'Rate of change q′(t) = 3.6 cos(0.9t) − 0.3'],
  ['value of q at 2', 'Value of q at t = 2'],
  ['tangent to q', 'Tangent to q at t = a'],
  ['normal to q', 'Normal to q at t = a'],
  ['secant to q', 'Secant to q from t = a to t = a + h'],
  ['average rate of q over 1 to 4', 'Average rate of q over [1, 4]'],
  ["where q' = 2", 'Where is q′ = 2 on [0, 10]'],
  ['where does q meet r', 'Where does q meet r on [0, 10]'],
  ['table of q by 0.5', 'Table of q over [0, 10] by 0.5, h = 0.001'],
  ['area under q over 1 to 7', 'Area under q over [1, 7] with n = 8 strips, height at the left'],
  ['between q and r', 'Area between q and r over [0, 10]'],
  ['average of q', 'Average of q over [0, 10]'],
  ['accumulate q from 0', 'Let A(t) be the area under q from 0 to t'],
  ['turning points of q', 'Turning points of q on [0, 10]'],
  ['zeros of q', 'Zeros of q on [0, 10]'],
  ['inflections of q', 'Inflections of q on [0, 10]'],
  ["conclude q as f'", 'Taking q as f′: conclusions about f on [0, 10]'],
  ['sign chart of q', 'Sign chart of q on [0, 10]'],
  ['limit of q as t -> 3', 'Limit of q as t → 3 from both sides'],
  ['is q continuous at 3?', 'Is q continuous and differentiable at t = 3?'],
  ['distance from q to (3, 1)', 'Distance L(t) from q at t = a to (3, 1)'],
]

/* What teachers and textbooks say, and what it must become; null where nothing fits and nothing is added. */
import { say, startStudy } from '..'

const base = () => {
  const said = say(startStudy('f(x) = x^3 - 3x for -2 <= x <= 4'), 'let k(x) = x/2')
  if ('problem' in said) throw new Error(said.problem)
  return said.study
}

const phrases: readonly (readonly [words: string, sentence: string | null])[] = [
  ['where f > 0', 'Where is f > 0 on [−2, 4]'],
  ['where is f positive', 'Where is f > 0 on [−2, 4]'],
  ['where is k below the axis', 'Where is k < 0 on [−2, 4]'],
  ['solve f > 2', 'Where is f > 2 on [−2, 4]'],
  ["where f' < 0 on 0 to 2", 'Where is f′ < 0 on [0, 2]'],
  ['where f >= k', 'Where is f ≥ k on [−2, 4]'],
  ['where is f increasing', 'Taking f as f: conclusions about f on [−2, 4]'],
  ['f is concave up', 'Taking f as f: conclusions about f on [−2, 4]'],
  ['intervals of increase of f', 'Taking f as f: conclusions about f on [−2, 4]'],
  [
    'area under f from 0 to 2 with 4 subintervals',
    'Area under f over [0, 2] with n = 4 strips, height at the left',
  ],
  [
    'trapezoid sum of f on [0,2] with 4 trapezoids',
    'Area under f over [0, 2] with n = 4 strips, height along a slanted top',
  ],
  ['R4 of f on [0,2]', 'Area under f over [0, 2] with n = 4 strips, height at the right'],
  ['M4 of f on [0, 2]', 'Area under f over [0, 2] with n = 4 strips, height at the middle'],
  ['T6 of f', 'Area under f over [−2, 4] with n = 6 strips, height along a slanted top'],
  [
    'area under f from 0 to 2 with 5 strips at the right',
    'Area under f over [0, 2] with n = 5 strips, height at the right',
  ],
  [
    'area under f from 0 to 2 using right endpoints n=5',
    'Area under f over [0, 2] with n = 5 strips, height at the right',
  ],
  [
    'definite integral of f from 0 to 2',
    'Area under f over [0, 2] with n = 8 strips, height at the left',
  ],
  ['∫_0^2 f(x) dx', 'Area under f over [0, 2] with n = 8 strips, height at the left'],
  ['g(x) = integral of f from 0 to x', 'Let g(x) be the area under f from 0 to x'],
  ['tangent line to f at 2', 'Tangent to f at x = 2'],
  ['equation of the tangent line to f at 2', 'Tangent to f at x = 2'],
  ['normal line to k at 1', 'Normal to k at x = 1'],
  ['point on f at 2', 'Value of f at x = 2'],
  ['the point of k at x = 2', 'Value of k at x = 2'],
  ['point (2, f(2))', 'Value of f at x = 2'],
  ["y - f(2) = f'(2)(x - 2)", 'Tangent to f at x = 2'],
  ['horizontal tangent of f', 'Where is f′ = 0 on [−2, 4]'],
  ["intersection of f' and k", 'Where does f′ meet k on [−2, 4]'],
  ['points of intersection of f and k', 'Where does f meet k on [−2, 4]'],
  ['where do f and k meet', 'Where does f meet k on [−2, 4]'],
  ['where is f equal to k', 'Where does f meet k on [−2, 4]'],
  ['critical numbers of f', 'Critical points of f on [−2, 4]'],
  ['local extrema of f', 'Turning points of f on [−2, 4]'],
  ['absolute maximum of f on [0,2]', 'Features of f on [0, 2]'],
  ['range of f', 'Features of f on [−2, 4]'],
  ['end behavior of f', 'Limit of f as x → ∞'],
  ['lim_{x→2} f(x)', 'Limit of f as x → 2 from both sides'],
  ['lim x->2 f(x)', 'Limit of f as x → 2 from both sides'],
  ['y-intercept of f', 'Value of f at x = 0'],
  ['average rate of change of f from 0 to 2', 'Average rate of f over [0, 2]'],
  ['MVT for f on [0, 2]', 'Mean value theorem for f on [0, 2]'],
  ['total distance of f', 'Speeding up and slowing down of f on [−2, 4], read as a velocity'],
  // What is not there is not something else.
  ['value of g at 2', null],
  ['value of g', null],
  ['tangent to g at 2', null],
  ["zeros of g'", null],
  ['tangent through (0, 2)', null],
  ['tangent parallel to y = 2x', null],
  ['arc length of f', null],
]

test.each(phrases)('“%s” becomes “%s”', (words, sentence) => {
  const said = say(base(), words)
  if (sentence === null) expect(said).toHaveProperty('problem')
  else expect('problem' in said ? said.problem : said.sentence).toBe(sentence)
})

test('a curve that is called R keeps its name: R4 is no sum', () => {
  const study = startStudy('R(x) = x')
  expect(say(study, 'R4 of R')).toHaveProperty('problem')
})

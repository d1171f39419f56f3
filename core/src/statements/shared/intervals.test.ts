import { compile, parseFormula, say, startStudy, workOut } from '../..'
import { examine } from '../../features/examine'
import { endsBelong, type Holds, intervalText } from './intervals'

function interval(formula: string, stretch: [number, number], holds: Holds) {
  const parsed = parseFormula(formula)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  const f = compile(parsed.tree)
  const { breaks } = examine(f, -4, 4)
  return intervalText(stretch, endsBelong(f, stretch, holds, breaks), 3)
}

// By the definition: an end belongs exactly if the property holds with its value included.
test.each([
  ['floor(x)', [0, 1], 'level', '[0, 1)'],
  ['1/x', [-2, 0], 'falls', '[−2, 0)'],
  ['1/x', [0, 2], 'falls', '(0, 2]'],
  ['x if x < 1; 5 otherwise', [-2, 1], 'rises', '[−2, 1]'],
  ['x if x < 1; -5 otherwise', [-2, 1], 'rises', '[−2, 1)'],
  ['-x if x < 1; -5 otherwise', [-2, 1], 'falls', '[−2, 1]'],
  ['x^2 if x < 1; 4 otherwise', [-2, 1], 'concaveUp', '[−2, 1]'],
  ['x^2 if x < 1; 0 otherwise', [-2, 1], 'concaveUp', '[−2, 1)'],
  ['|x|', [0, 2], 'rises', '[0, 2]'],
  ['(x^2 - 1)/(x - 1)', [1, 3], 'rises', '(1, 3]'],
] as [string, [number, number], Holds, string][])(
  '%s on %p %s: %s',
  (formula, stretch, holds, text) => {
    expect(interval(formula, stretch, holds)).toBe(text)
  },
)

const told = (formula: string, words: string) => {
  const said = say(startStudy(formula), words)
  if ('problem' in said) throw new Error(said.problem)
  return workOut(said.study).lines.at(-1)!
}

test('a value that is held all along a stretch says which ends take it', () => {
  const texts = told('f(x) = 2.2 if x < 2; 1 otherwise for 0 <= x <= 4', 'features of f').readouts
  expect(texts.map(({ text }) => text)).toEqual(['2.2 all along [0, 2)', '1 all along [2, 4]'])
})

test('what follows from a graph that runs away stops before the place', () => {
  const texts = told('f(x) = 1/x^2 for -2 <= x <= 2', "conclude f as f'").conclusions
  expect(texts.map(({ text }) => text.split(',').slice(0, 2).join())).toEqual([
    'h rises on [−2, 0)',
    'h rises on (0, 2]',
    'h is concave up on [−2, 0)',
    'h is concave down on (0, 2]',
  ])
})

import reference from '../../reference/exact.json'
import { compile, integrate, parseFormula } from '..'
import { exactArea } from './exactArea'

// Forms and digits by SymPy and mpmath; see reference/exact.py.

function read(text: string, variable = 'x') {
  const parsed = parseFormula(text, { variable })
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return parsed.tree
}
const end = (text: string) => {
  const exact = read(text, '')
  return { value: compile(exact, { variable: '' }).value(0), exact }
}
const numberOf = (text: string) => end(text.replaceAll('−', '-')).value

describe('integrals of a first course', () => {
  test.each(reference.integrals)('$formula from $from to $to', ({ formula, from, to, value }) => {
    const f = compile(read(formula))
    const [a, b] = [end(from), end(to)]
    const form = exactArea(f, a, b, integrate(f, a.value, b.value), 3)
    expect(form?.text ?? null).not.toBeNull()
    expect(numberOf(form!.text)).toBeCloseTo(Number(value), 12)
  })
})

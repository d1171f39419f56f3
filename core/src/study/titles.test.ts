import { createStudy, editSlot, retype } from '..'
import { say } from '../statements/fixtures/testing'
import type { Study } from './schema'

const start = (text: string): Study => {
  const created = createStudy(text)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}
const typed = (study: Study, formula: string): Study => {
  const edit = editSlot(study, study.lines[0]!, { slot: 'formula', field: 'formula' }, formula)
  if (!edit.ok) throw new Error(edit.message)
  return edit.edit(study)
}
const spanOf = (study: Study, index = 0) => (study.lines[index] as { span?: unknown }).span

test('the title follows the formula until someone has named the study', () => {
  const first = start('f(x) = x^2')
  expect(first.title).toBe('f(x) = x²')
  const second = typed(first, 'sqrt(7x - 3)')
  expect(second.title).toBe('f(x) = √(7x − 3)')
  expect(typed({ ...second, title: 'Roots' }, 'x^3').title).toBe('Roots')
})
test('what cannot be read leaves the title', () => {
  expect(typed(start('f(x) = x^2'), 'x^2 +').title).toBe('f(x) = x²')
})
test('another letter for the curve stands in the title, too', () => {
  expect(typed(start('f(x) = x^2'), 'g(x) = x^3').title).toBe('g(x) = x³')
})
test('a changed formula has the span of a new study with it', () => {
  const changed = retype('line1', 'sqrt(7x - 3)')(start('f(x) = x^2'))
  expect(spanOf(changed)).toEqual(spanOf(start('f(x) = sqrt(7x - 3)')))
})
test('spans that nobody has set follow, and others stay', () => {
  const base = start('f(x) = x^2')
  const own = say(base, 'where f = 1')
  const set = say(own, 'area of f over 1 to 2')
  const changed = typed(set, 'ln x')
  expect(spanOf(changed, 1)).toEqual(spanOf(changed))
  expect(spanOf(changed, 2)).toEqual({ from: '1', to: '2' })
})
test('a span that was typed with the curve stays', () => {
  expect(spanOf(typed(start('f(x) = x^2 for 0 <= x <= 9'), 'x^3'))).toEqual({ from: '0', to: '9' })
})

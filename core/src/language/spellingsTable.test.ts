import { readFileSync } from 'node:fs'
import path from 'node:path'
import { create, all, type EvalFunction } from 'mathjs'
import { compile, parseFormula } from '..'

const math = create(all!, { predictable: false })

interface Row {
  spelling: string
  meaning: string
}

/**
 * Formulas as they are written by hand, typed and pasted, from memory of textbooks and notebooks. What
 * a group means stands before it in the notation of mathjs, which works out the reference.
 */
function rowsOf(text: string): Row[] {
  let meaning = ''
  return text.split('\n').flatMap((line) => {
    if (line.startsWith('  ')) return [{ spelling: line.slice(2), meaning }]
    if (line !== '') meaning = line
    return []
  })
}
const rows = rowsOf(readFileSync(path.join(__dirname, 'fixtures/spellings.txt'), 'utf8'))
const read = rows.filter(({ meaning }) => !meaning.startsWith('?'))
const unread = rows.filter(({ meaning }) => meaning.startsWith('?'))

test('there are some hundreds of them', () => expect(rows.length).toBeGreaterThan(300))

const reference = new Map<string, EvalFunction>()
const valueOf = (meaning: string, x: number): number => {
  if (!reference.has(meaning)) reference.set(meaning, math.compile(meaning))
  const value: unknown = reference.get(meaning)!.evaluate({ x })
  return typeof value === 'number' ? value : NaN
}

/** Places at which each formula of the table is defined, and none at which two agree by chance. */
const places = [0.3, 0.85, 1.7, 2.45, 5.1]

test.each(read)('“$spelling” is $meaning', ({ spelling, meaning }) => {
  const parsed = parseFormula(spelling)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  const f = compile(parsed.tree)
  for (const x of places) expect(f.value(x)).toBeCloseTo(valueOf(meaning, x), 10)
})

test.each(unread)('“$spelling” is asked about or told', ({ spelling }) => {
  const parsed = parseFormula(spelling)
  expect(parsed.ok).toBe(false)
  if (parsed.ok) return
  const [problem] = parsed.problems
  expect(problem!.message.length).toBeGreaterThan(10)
  expect(problem!.from).toBeLessThanOrEqual(spelling.length)
})

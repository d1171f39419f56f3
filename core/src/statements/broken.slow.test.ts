/* What lines say of functions that break at a place, held against reference/sentences.py (mpmath). */
import reference from '../../reference/sentences.json'
import { say, startStudy, workOut } from '..'

const told = (formula: string, words: string) => {
  const said = say(startStudy(`f(x) = ${formula}`), words)
  if ('problem' in said) throw new Error(said.problem)
  const line = workOut(said.study).lines.at(-1)!
  const readout = (id: string) => line.readouts.find((r) => r.id === id)
  const all = [
    ...line.notes,
    ...line.conclusions.map((c) => c.text),
    ...line.problems.map((p) => p.message),
  ]
  return { ...line, readout, all: all.join('\n') }
}
type Limit = number | string | null
const isNumber = (v: Limit): v is number => typeof v === 'number'
const near = (a: Limit, b: Limit) => (isNumber(a) && isNumber(b) ? Math.abs(a - b) < 1e-9 : a === b)

/** What a one-sided limit reads as. */
const wording = (limit: Limit): RegExp =>
  limit === 'inf'
    ? /grows without bound/
    : limit === '-inf'
      ? /falls without bound/
      : /swings without settling/

describe.each(reference.broken)('$formula at $x', (one) => {
  const { formula, x, value } = one
  const [left, right] = one.limits as [Limit, Limit]
  const [before, after] = one.slopes as [Limit, Limit]
  const same = near(left, right)
  const isContinuous = value !== null && same && isNumber(left) && near(left, value)
  const isSmooth = isContinuous && isNumber(before) && isNumber(after) && near(before, after)

  test('its limits', () => {
    const { readout } = told(formula, `limit of f at ${x}`)
    for (const [id, limit] of [
      ['left', left],
      ['right', right],
    ] as const) {
      const found = readout(id)!
      if (isNumber(limit)) expect([id, found.value]).toEqual([id, expect.closeTo(limit, 9)])
      else expect([id, found.text]).toEqual([id, expect.stringMatching(wording(limit)) as string])
    }
    const whole = readout('limit')!
    if (same && isNumber(left)) expect(whole.value).toBeCloseTo(left, 9)
    else expect(whole.text).toMatch(/^no limit/)
  })

  test('whether it is continuous and differentiable', () => {
    const { readout } = told(formula, `is f continuous at ${x}?`)
    expect(readout('continuous')!.text === 'yes').toBe(isContinuous)
    expect(readout('differentiable')!.text === 'yes').toBe(isSmooth)
    if (isSmooth) expect(readout('differentiable')!.value).toBeCloseTo(before, 9)
    if (!isContinuous && value !== null) {
      // Only from one side, where the value is the limit of that side alone.
      const side = near(left, value) ? 'left' : near(right, value) ? 'right' : null
      expect(readout('continuous')!.text).toBe(side ? `no, only from the ${side}` : 'no')
    }
  })

  test('its slope, or why there is none', () => {
    const { readout, all } = told(formula, `tangent to f at ${x}`)
    const slope = readout('slope')
    if (isSmooth) expect(slope!.value).toBeCloseTo(before, 9)
    else expect(slope).toBeUndefined()
    if (isContinuous && isNumber(before) && isNumber(after) && !isSmooth) {
      expect(all).toMatch(/kink here, \S+ on its left and \S+ on its right/)
    }
    if (!isContinuous) expect(all).not.toMatch(/kink/)
  })

  test('the slope of the area under it is the limit, where there is one', () => {
    if (!isNumber(left) || !isNumber(right)) return
    const said = say(
      startStudy(`f(x) = ${formula} for ${x - 1}<=x<=${x + 1}`),
      `accumulate f from ${x - 1}`,
    )
    if ('problem' in said) throw new Error(said.problem)
    const next = say(said.study, `tangent to A at ${x}`)
    if ('problem' in next) throw new Error(next.problem)
    const line = workOut(next.study).lines.at(-1)!
    const slope = line.readouts.find((r) => r.id === 'slope')
    if (same) expect(slope!.value).toBeCloseTo(left, 9)
    else expect(slope).toBeUndefined()
  })

  test('the list of features says what it does there', () => {
    const { tables } = told(`${formula} for ${x - 1}<=x<=${x + 1}`, 'features of f')
    const rows = tables[0]?.rows.filter((row) => Number(row[1]!.replace('−', '-')) === x) ?? []
    const kinds = rows.map((row) => row[0]!)
    const isBroken = kinds.some((k) =>
      ['jump', 'hole', 'displaced point', 'pole', 'no limit'].includes(k),
    )
    if (isContinuous) expect(kinds.filter((k) => /jump|hole|displaced|pole/.test(k))).toEqual([])
    else expect([kinds, isBroken]).toEqual([kinds, true])
    if (isNumber(left) && isNumber(right) && !same) expect(kinds).toContain('jump')
    if (value === null && same && isNumber(left)) expect(kinds).toContain('hole')
    if (value !== null && same && isNumber(left) && !isContinuous)
      expect(kinds).toContain('displaced point')
    const hasKink = isContinuous && isNumber(before) && isNumber(after) && !isSmooth
    if (hasKink) expect(kinds.some((k) => /kink|low|high/.test(k))).toBe(true)
    if (isSmooth) expect(kinds).not.toContain('kink')
  })

  test('theorems see whether it is continuous and has slopes', () => {
    const { conclusions } = told(
      `${formula} for ${x - 1}<=x<=${x + 1}`,
      `mean value theorem for f on [${x - 1}, ${x + 1}]`,
    )
    const [first, second] = conclusions.map(({ text }) => text)
    // Other breaks of the same formula may come first.
    if (isContinuous) expect(first).not.toMatch(new RegExp(`at x = ${x} `))
    else expect(first).toMatch(/^f is not continuous/)
    if (isSmooth) expect(second).not.toMatch(new RegExp(`at x = ${x} `))
    else expect(second).toMatch(/^f is not differentiable/)
  })
})

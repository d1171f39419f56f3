import type { RealFunction } from '../../evaluate/compile'
import { minimize, type MinimizeOptions, type SearchMethod } from '../../search/minimize'
import type { Found } from '../../search/walk'
import { formatShort } from '../../vocabulary/numbers'
import type { CurveResult, LineContext, LineProblem } from '../contract'
import { curveText } from '../shared/slots'
import { beginsAtPlace, type SearchLine, type SettingField, settings } from './line'

/** A search of the study, with its numbers put in. */
export interface Asked {
  curve: CurveResult
  /** Where the curve is drawn, and so where there is something to find. */
  whole: readonly [from: number, to: number]
  f: RealFunction
  /** null where no method begins at a place. */
  start: number | null
  /** Where methods that begin with a stretch look. */
  span: readonly [from: number, to: number]
  numbers: Partial<Record<SettingField, number>>
}

type Refusal = { ok: false; problem: LineProblem }

/** Numbers that a search cannot do anything with, and what to give instead. */
const checks: Record<SettingField, { good: (v: number) => boolean; message: string; fix: string }> =
  {
    step: {
      good: (v) => Number.isFinite(v) && v !== 0,
      message: 'a first step is a number other than 0',
      fix: 'give one as wide as the valley you look for',
    },
    tolerance: {
      good: (v) => v > 0 && v < 1,
      message: 'a tolerance lies between 0 and 1',
      fix: 'give 10⁻⁸, or a larger one to stop sooner',
    },
    most: {
      good: (v) => Number.isInteger(v) && v >= 2 && v <= 20_000,
      message: 'a search makes from 2 to 20,000 evaluations',
      fix: 'give a whole number between them',
    },
    rate: {
      good: (v) => v > 0 && Number.isFinite(v),
      message: 'a rate is a number above 0',
      fix: 'give 0.1, or a smaller one',
    },
    seed: {
      good: (v) => Number.isInteger(v) && v >= 0,
      message: 'a seed is a whole number',
      fix: 'give 1, 2, 3 …',
    },
    size: {
      good: (v) => Number.isInteger(v) && v >= 4 && v <= 400,
      message: 'a population has from 4 to 400 members',
      fix: 'give a whole number between them',
    },
    generations: {
      good: (v) => Number.isInteger(v) && v >= 1 && v <= 1000,
      message: 'a population lives from 1 to 1000 generations',
      fix: 'give a whole number between them',
    },
  }

/** Looks up all that the search stands on. */
export function askedOf(line: SearchLine, context: LineContext): (Asked & { ok: true }) | Refusal {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const { curve } = found
  const whole = [curve.from, curve.to] as const
  const { letter } = context.variable
  const show = (x: number) => formatShort(x, Math.max(3, context.decimals))
  const f = within(curve.derivative(line.order).f, curve.reach.from, curve.reach.to)
  let start: number | null = null
  if (line.start !== undefined) {
    const read = context.number(line.start)
    if (!read.ok) return read
    start = read.value
    const { from, to } = curve.reach
    if (!Number.isFinite(start) || start < from || start > to) {
      return refused(
        `the search begins at ${letter} = ${show(start)}, and ${curveText(line)} is drawn from ${show(from)} to ${show(to)}`,
        `begin between ${show(from)} and ${show(to)}`,
      )
    }
    if (!Number.isFinite(f.value(start))) {
      return refused(
        `${curveText(line)} has no value at ${letter} = ${show(start)}, where the search begins`,
        'move its start to where the curve is drawn',
      )
    }
  }
  const span = spanOf(line, whole, context)
  if ('ok' in span) return span
  const numbers: Asked['numbers'] = {}
  for (const { field } of settings) {
    const text = line[field]
    if (text === undefined) continue
    const read = context.number(text)
    if (!read.ok) return read
    const { good, message, fix } = checks[field]
    if (!good(read.value)) return refused(`${message}, and not ${show(read.value)}`, fix)
    numbers[field] = read.value
  }
  return { ok: true, curve, whole, f, start, span, numbers }
}

const refused = (message: string, fix: string): Refusal => ({
  ok: false,
  problem: { message, fix },
})

function spanOf(
  { span }: SearchLine,
  whole: Asked['whole'],
  context: LineContext,
): Asked['span'] | Refusal {
  if (!span) return whole
  const [from, to] = [context.number(span.from), context.number(span.to)]
  if (!from.ok) return from
  if (!to.ok) return to
  const show = (x: number) => formatShort(x, Math.max(3, context.decimals))
  const [a, b] = [Math.max(from.value, whole[0]), Math.min(to.value, whole[1])]
  if (!(a < b)) {
    return refused(
      `nothing of the curve lies on [${show(from.value)}, ${show(to.value)}]`,
      `use [${show(whole[0])}, ${show(whole[1])}]`,
    )
  }
  return [a, b]
}

/** A function where its curve is drawn, and without a value beyond. */
function within(f: RealFunction, from: number, to: number): RealFunction {
  const isIn = (x: number) => x >= from && x <= to
  return {
    ...f,
    value: (x) => (isIn(x) ? f.value(x) : NaN),
    derivatives: (x, order) =>
      isIn(x) ? f.derivatives(x, order) : Array.from({ length: order + 1 }, () => NaN),
  }
}

/** A function upside down: its high points are low ones. */
const upsideDown = (f: RealFunction): RealFunction => ({
  ...f,
  value: (x) => -f.value(x),
  derivatives: (x, order) => f.derivatives(x, order).map((d) => -d),
})

/** What the methods take, by the settings that were given. */
export function optionsOf(
  method: SearchMethod,
  { span: [from, to], numbers }: Asked,
  start: number,
): MinimizeOptions {
  const { step, rate, seed, size, generations, tolerance, most } = numbers
  const given = <T extends object>(all: T) =>
    Object.fromEntries(Object.entries(all).filter(([, v]) => v !== undefined)) as Partial<T>
  const limits = given({ tolerance, most })
  switch (method) {
    case 'simplex':
      return { method, start, ...given({ step }), ...limits }
    case 'newton':
      return { method, start, ...limits }
    case 'gradient':
      return { method, start, ...given({ rate }), ...limits }
    case 'golden':
      return { method, from, to, ...limits }
    case 'population':
      return { method, from, to, ...given({ seed, size, generations }), ...limits }
  }
}

/** One search, right way up whichever way it looked. Done once for the same question. */
export function runOf(
  method: SearchMethod,
  line: SearchLine,
  asked: Asked,
  context: LineContext,
  start = asked.start ?? 0,
): Found {
  const { curve, f } = asked
  const options = optionsOf(method, asked, beginsAtPlace(method) ? start : 0)
  const key = `search ${line.order} ${line.goal} ${JSON.stringify(options)}`
  return context.memo(curve, key, () => {
    const found = minimize(line.goal === 'high' ? upsideDown(f) : f, options)
    if (line.goal === 'low') return found
    return {
      ...found,
      value: -found.value,
      log: found.log.map((probe) => ({ ...probe, value: -probe.value })),
    }
  })
}

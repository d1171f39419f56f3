import { sayNumber } from '../../vocabulary/numbers'
import { placeIs } from '../shared/said'
import * as I from '../../arithmetic/intervals'
import { compileTree, type RealFunction } from '../../evaluate/compile'
import { limit, type Limit } from '../../features/limits/limit'
import type { OneSided } from '../../features/limits/oneSided'
import type { PlaceFacts } from '../../features/place/placeFacts'
import { lookAtPlace } from '../../features/place/placeFacts'
import { simplify } from '../../algebra/simplify'
import { toPlain } from '../../language/print'
import { name, negate, product, quotient, sum, type Tree } from '../../formula/tree'
import { lineEquation } from '../../vocabulary/equation'
import { roundedLine } from '../shared/lines'
import { unitOfDerivative, withUnit } from '../../vocabulary/units'
import type { CurveResult, LineContext, LineResult, Mark, Readout } from '../contract'
import { curveText } from '../shared/slots'
import { closingTable, endTable } from './closing'
import { numberWords } from '../shared/placeWords'
import type { LimitLine } from './line'

type Ref = Pick<LimitLine, 'curve' | 'order'>

/** A limit as a readout: its number, with its form where it has a short one; or that there is none. */
export function limitReadout(
  id: string,
  label: string,
  found: OneSided | null,
  unit: string,
  decimals: number,
): Readout {
  if (found?.kind === 'value') {
    const value = I.middle(found.range)
    const form = found.exact ? toPlain(found.exact) : null
    const said = numberWords(found, decimals)
    const digits = said.slice(said.indexOf('≈') + 1).trim()
    const isRounded = said.includes('≈')
    const short = form !== null && form.length <= 16 && !/^−?[\d.]+$/.test(form)
    const text = short ? `${form} ${isRounded ? '≈' : '='} ${digits}` : digits
    return { id, label, text: withUnit(text, unit), value }
  }
  const words =
    found === null
      ? 'no limit: there are no values'
      : found.kind === 'infinite'
        ? `no limit: ${found.sign > 0 ? 'grows' : 'falls'} without bound`
        : found.kind === 'none'
          ? 'no limit: swings without settling'
          : 'not settled'
  return { id, label, text: words }
}

const noLimit = 'no limit'

/** The limit at a place, from one side or both. */
export function limitAtPlace(
  line: LimitLine,
  curve: CurveResult,
  place: { value: number; exact: Tree | null },
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const { f } = curve.derivative(line.order)
  const facts = context.memo(curve, `place ${line.order} ${place.value}`, () =>
    lookAtPlace(f, place.value, place.exact),
  )
  const unit = unitOfDerivative(curve.unit, variable.unit, line.order)
  const { left, right } = facts
  const asked = line.side === 'both' ? null : facts[line.side].limit
  const readouts =
    line.side === 'both'
      ? [
          bothReadout(facts, unit, decimals),
          limitReadout('left', 'from the left', left.limit, unit, decimals),
          limitReadout('right', 'from the right', right.limit, unit, decimals),
        ]
      : [limitReadout('limit', 'limit', asked, unit, decimals)]
  const name = curveText(line)
  const at = placeIs(variable.letter, sayNumber(place.value, Math.max(decimals, 3)))
  return {
    readouts,
    marks: placeMarks(line, facts),
    problems: [],
    hints: [],
    notes: [
      ...reasons(line, facts),
      valueNote(facts, name, at, decimals),
      ...(left.limit && !right.limit ? [`${name} has no values right after ${at}.`] : []),
      ...(right.limit && !left.limit ? [`${name} has no values right before ${at}.`] : []),
    ],
    tables: [closingTable(f, place, sidesOf(line), curveText(line), context)],
  }
}

function bothReadout(facts: PlaceFacts, unit: string, decimals: number): Readout {
  const { left, right } = facts
  if (facts.limit) return limitReadout('limit', 'limit', facts.limit, unit, decimals)
  // At an end of the domain the one side there is decides, and says so.
  if (!left.limit && !right.limit) return limitReadout('limit', 'limit', null, unit, decimals)
  if (!left.limit || !right.limit) {
    const only = left.limit ?? right.limit
    const side = left.limit ? 'left' : 'right'
    const one = limitReadout('limit', 'limit', only, unit, decimals)
    return { ...one, text: `${one.text}, from the ${side} alone` }
  }
  if (left.limit.kind === 'none' && right.limit.kind === 'none') {
    return limitReadout('limit', 'limit', left.limit, unit, decimals)
  }
  return { id: 'limit', label: 'limit', text: `${noLimit}: the sides differ` }
}

/** Why, for each side that was asked about; once where both say the same. */
function reasons({ side }: LimitLine, { left, right }: PlaceFacts): string[] {
  const asked = [
    ...(side !== 'right' && left.limit
      ? [{ way: 'From the left', because: left.limit.reason }]
      : []),
    ...(side !== 'left' && right.limit
      ? [{ way: 'From the right', because: right.limit.reason }]
      : []),
  ]
  const [first, second] = asked
  if (first && second && first.because === second.because) return [`Because ${first.because}.`]
  return asked.map(({ way, because }) => `${way}: ${because}.`)
}

/** How the value at the place stands to the limit. */
function valueNote(facts: PlaceFacts, name: string, at: string, decimals: number): string {
  const { value, limit } = facts
  if (!value) return `${name} has no value at ${at}.`
  const is = `${name} is ${numberWords(value, decimals)} at ${at}`
  if (limit?.kind !== 'value') return `${is}.`
  return facts.kind === 'displaced'
    ? `${is}, beside the limit: it is not continuous there.`
    : `${is}, which is the limit: it is continuous there.`
}

/** Filled where the value is the limit, open where not; an upright asymptote at a pole. */
function placeMarks(ref: Ref, facts: PlaceFacts): Mark[] {
  const lane = { curve: ref.curve, order: ref.order }
  const { x, left, right, value } = facts
  const spots = [left.limit, right.limit].flatMap((limit): number[] =>
    limit?.kind === 'value' ? [I.middle(limit.range)] : [],
  )
  const own = value ? I.middle(value.range) : null
  const heights = [...new Set(spots)].filter((y) => own === null || Math.abs(y - own) > 1e-9)
  const infinite = [left.limit, right.limit].some((limit) => limit?.kind === 'infinite')
  return [
    ...(infinite
      ? [{ kind: 'asymptote' as const, id: 'asymptote', layer: 'marks' as const, lane, x }]
      : []),
    ...heights.map((y, i) => ({
      kind: 'spot' as const,
      id: `limit${i + 1}`,
      layer: 'marks' as const,
      lane,
      x,
      y,
      filled: false,
    })),
    ...(own === null
      ? []
      : [
          {
            kind: 'spot' as const,
            id: 'value',
            layer: 'marks' as const,
            lane,
            x,
            y: own,
            filled: true,
          },
        ]),
  ]
}

const sidesOf = ({ side }: LimitLine) =>
  (['left', 'right'] as const).filter((s) => side === 'both' || side === s)

/** The limit as the variable grows, or falls, without end. */
export function limitAtEnd(
  line: LimitLine,
  curve: CurveResult,
  end: 1 | -1,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const { f } = curve.derivative(line.order)
  const found = limit(f, end * Infinity)
  const unit = unitOfDerivative(curve.unit, variable.unit, line.order)
  const lane = { curve: line.curve, order: line.order }
  const asymptote =
    found.kind === 'value'
      ? { slope: 0, y: found.value }
      : found.kind === 'infinite'
        ? context.memo(curve, `asymptote ${line.order} ${end}`, () => slantOf(f, end, decimals))
        : null
  const called = curveText(line)
  const equation = asymptote && 'equation' in asymptote ? asymptote.equation : null
  return {
    readouts: [limitReadout('limit', 'limit', asOneSided(found), unit, decimals)],
    marks: asymptote
      ? [
          {
            kind: 'asymptote',
            id: 'asymptote',
            layer: 'marks',
            lane,
            slope: asymptote.slope,
            y: asymptote.y,
          },
        ]
      : [],
    problems: [],
    hints: [],
    notes: [
      `Because ${found.reason}.`,
      ...(equation ? [`${called} comes near to the line ${equation}, and the gap vanishes.`] : []),
    ],
    tables: [endTable(f, end, [variable.letter, called], decimals)],
  }
}

const asOneSided = (found: Limit): OneSided =>
  found.kind === 'value'
    ? {
        kind: 'value',
        range: { lo: found.enclosure[0], hi: found.enclosure[1] },
        reason: found.reason,
        ...(found.exact ? { exact: found.exact } : {}),
      }
    : found

/** The slanting line whose gap to the function vanishes: its slope is the limit of f(x)/x. */
function slantOf(
  f: RealFunction,
  end: 1 | -1,
  decimals: number,
): { slope: number; y: number; equation: string } | null {
  const { variable, parameters } = f
  const x = name(variable)
  const limitOf = (tree: Tree) =>
    limit(compileTree(tree, { variable }).withParameters(parameters), end * Infinity)
  const slope = limitOf(quotient(f.tree, x))
  if (slope.kind !== 'value' || slope.value === 0 || !slope.exact) return null
  const gap = limitOf(sum(f.tree, negate(product(slope.exact, x))))
  if (gap.kind !== 'value') return null
  const line = roundedLine({ at: 0, value: gap.value, slope: slope.value }, decimals)
  const exact = gap.exact && toPlain(simplify(sum(product(slope.exact, x), gap.exact)))
  const equation = exact && exact.length <= 24 ? `y = ${exact}` : lineEquation(line, variable)
  return { slope: slope.value, y: gap.value, equation }
}

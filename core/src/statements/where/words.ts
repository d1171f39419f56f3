import { placeIs } from '../shared/said'
import type { RealFunction } from '../../evaluate/compile'
import { type ExactOf, placeWords } from '../shared/exactPlaces'
import { oneSign } from '../shared/said'
import type { Tree } from '../../formula/tree'
import { readableFunctions } from '../../vocabulary/exactForms'
import { plainDecimal, tellNumber } from '../../vocabulary/told'
import {
  formatCertain,
  formatNotZero,
  formatNumber,
  formatStretch,
  sayNumber,
  sayStretch,
} from '../../vocabulary/numbers'
import { listed, unitOfDerivative, withUnit } from '../../vocabulary/units'
import type { LineContext, ResultTable, Verdict } from '../contract'
import { curveText } from '../shared/slots'
import type { EqualStretch, NoMean, Settled } from './facts'
import type { WhereLine } from './line'

/** What the words hang on besides what was found. */
export interface Wording {
  line: WhereLine
  /** The unit of the curve. */
  unit: string
  /** The number that was asked for; null where it is another curve. */
  level: number | null
  context: LineContext
  exactOf: ExactOf
}

/** Solutions beyond this are counted, not listed in the sentence. */
const mostSaid = 6
/** Longer lists go without exact forms. */
const mostExact = 60
/** Ends are told with this many decimals even where values have fewer. */
const fewestDecimals = 3

type Solution = Settled['solutions'][number]

const cellText = (solution: Solution, exact: Tree | null, decimals: number) => {
  if (exact) return formatNotZero(tellNumber(exact, decimals, null).value, decimals)
  const shown = formatCertain(solution.enclosure, decimals)
  return (shown.certain && solution.proven ? '' : '≈ ') + shown.text
}

/** √2, π/6 or 7/16; nothing for a number that the cell shows as it is. */
function exactText(exact: Tree | null, decimals: number): string {
  if (!exact) return ''
  const told = tellNumber(exact, decimals, readableFunctions)
  return told.exact?.proven ? told.exact.text : ''
}

/** "[1, 2)" */
const stretchText = ({ ends, closed }: EqualStretch, decimals: number) =>
  sayStretch(ends, decimals, closed)

/** The number that was asked for: as it was typed, or as its slider shows it. */
export function levelText(
  { target }: Pick<WhereLine, 'target'>,
  level: number,
  { number, decimals }: LineContext,
): string {
  const typed = number(target)
  if (!typed.ok) return sayNumber(level, decimals)
  const told = tellNumber(typed.tree, decimals, typed.exact ? readableFunctions : null)
  const isPlain = told.fraction && plainDecimal(told.fraction, decimals) !== null
  return isPlain ? told.text : (told.exact?.text ?? sayNumber(level, decimals))
}

/** "q′ is 2 ML/h at t = 1 and 3 h.", and where both are equal all along. */
export function solutionsWords(
  found: Settled,
  { line, unit, level, context, exactOf }: Wording,
): string[] {
  const { variable, decimals } = context
  const number = level === null ? '' : levelText(line, level, context)
  const valueUnit = unitOfDerivative(unit, variable.unit, line.order)
  const equal =
    level === null ? 'they meet' : `${curveText(line)} is ${withUnit(number, valueUnit)}`
  const places = found.solutions.map((one, i) =>
    placeWords(i < mostSaid ? exactOf(one) : null, one, decimals),
  )
  const stretches = found.stretches.map((s) => stretchText(s, Math.max(fewestDecimals, decimals)))
  const at = `at ${placeIs(variable.letter, listed(oneSign(places), mostSaid, variable.unit))}.`
  const along = `all along ${listed(stretches, mostSaid)}.`
  return [
    ...(places.length > 0 ? [`${capital(equal)} ${at}`] : []),
    ...(stretches.length > 0
      ? [`${level === null ? 'They are equal' : capital(equal)} ${along}`]
      : []),
  ]
}

/** Where two curves, or a curve and its level, meet without crossing. */
export function touchingWords(
  places: readonly number[],
  level: number | null,
  line: WhereLine,
  { variable, decimals }: LineContext,
): string[] {
  if (places.length === 0) return []
  const shown = places.map((x) => sayNumber(x, Math.max(fewestDecimals, decimals)))
  const at = `at ${placeIs(variable.letter, listed(oneSign(shown), mostSaid, variable.unit))}`
  return level === null
    ? [`They touch ${at} and do not cross there.`]
    : [`${curveText(line)} touches that value ${at} and does not cross it there.`]
}

/** Whether the list is whole. */
export function verdictOf(
  { complete, solutions, stretches, unresolved }: Settled,
  [from, to]: readonly [from: number, to: number],
  decimals: number,
): Verdict {
  const places = Math.max(fewestDecimals, decimals)
  const span = sayStretch([from, to], places)
  const open = unresolved.slice(0, 3).map((stretch) => formatStretch(stretch, places))
  const none = solutions.length + stretches.length === 0
  return {
    complete,
    text: !complete
      ? `Not settled on ${open.join(', ')}`
      : none
        ? `No solution on ${span}: proven`
        : `Complete: no other solution on ${span}`,
    unresolved,
  }
}

/** Each solution with the value there, and for a rate with the height of the curve. */
export function solutionsTable(
  { solutions }: Settled,
  own: RealFunction | null,
  { line, context: { variable, decimals }, exactOf }: Wording,
): ResultTable | null {
  if (solutions.length === 0) return null
  const { letter } = variable
  const exact = solutions.map((one, i) => (i < mostExact ? exactOf(one) : null))
  const forms = exact.map((tree) => exactText(tree, decimals))
  const hasForms = forms.some((form) => form !== '')
  const rows = solutions.map((solution, i) => {
    const { x, value } = solution
    const numbers = own ? [value, own.value(x)] : [value]
    return {
      cells: [
        cellText(solution, exact[i]!, decimals),
        ...numbers.map((v) => formatNumber(v, decimals)),
        ...(hasForms ? [forms[i]!] : []),
      ],
      values: [x, ...numbers, ...(hasForms ? [null] : [])],
      x,
    }
  })
  const columns = [
    letter,
    `${curveText(line)}(${letter})`,
    ...(own ? [`${line.curve}(${letter})`] : []),
    ...(hasForms ? ['exactly'] : []),
  ]
  return { name: 'Solutions', columns, rows, count: rows.length, open: true }
}

/** Why there need be no place at which the rate is the average one. */
export function noMeanWords(
  { x, slopeless }: NoMean,
  { curve, order }: WhereLine,
  { variable, decimals }: LineContext,
): string {
  const where = placeIs(variable.letter, sayNumber(x, Math.max(fewestDecimals, decimals)))
  const name = curveText({ curve, order: order - 1 })
  const lacks = slopeless
    ? `${name} has a ${slopeless} at ${where}, and no slope there`
    : `${name} is not continuous at ${where}`
  return `The average rate need not be taken here: ${lacks}.`
}

const capital = (text: string) =>
  /^[a-z]\S/.test(text) && !/^[a-z]′/.test(text) ? text[0]!.toUpperCase() + text.slice(1) : text

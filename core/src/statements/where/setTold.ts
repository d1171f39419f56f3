import { placeIs } from '../shared/said'
import { decimalOfNumber } from '../../arithmetic/rational'
import { differenceOf } from '../../calculus/areas'
import { compileTree, type RealFunction } from '../../evaluate/compile'
import type { Solutions } from '../../features/solve'
import { exactly } from '../../formula/tree'
import { formatShort, formatStretch, sayNumber, sayStretch } from '../../vocabulary/numbers'
import { listed, withUnit } from '../../vocabulary/units'
import { emptyResult, type LineContext, type LineResult, type Mark, placeName } from '../contract'
import { curveText } from '../shared/slots'
import { holdsOn, type HoldsOn } from './inequality'
import type { Asked, Relation, WhereLine } from './line'

const signs: Readonly<Record<Relation, string>> = { '>': '>', '>=': '≥', '<': '<', '<=': '≤' }

/** Parts beyond this are counted. */
const mostListed = 8
const mostMarked = 100

/** The set on which a curve stands in a relation to a level or to another curve, with proof. */
export function setTold(
  line: WhereLine,
  relation: Relation,
  { curve, level, question }: Asked,
  found: Solutions,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const [f, target, from, to] = question
  const other: RealFunction =
    typeof target === 'number'
      ? compileTree(exactly(decimalOfNumber(target), true), { variable: f.variable })
      : target
  const exactOf = (text: string) => {
    const end = context.number(text)
    return end.ok ? end.exact : null
  }
  const difference = context.memo(f, `less ${line.target} ${String(level)}`, () =>
    differenceOf(f, other),
  )
  const parts = holdsOn(difference, relation, found, [
    { value: from, exact: exactOf(line.span.from) },
    { value: to, exact: exactOf(line.span.to) },
  ])
  const claim = `${curveText(line)} ${signs[relation]} ${level === null ? line.target : withUnit(sayNumber(level, decimals), line.order === 0 ? curve.unit : '')}`
  const span = sayStretch([from, to], Math.max(3, decimals))
  const lane = { curve: line.curve, order: line.order }
  const marks: Mark[] = found.solutions.slice(0, mostMarked).map(({ x, value }) => ({
    kind: 'stem',
    id: placeName('solution', x),
    layer: 'marks',
    lane,
    x,
    y: value,
    label: '',
  }))
  const where = listed(
    parts.map((part) => partText(part, Math.max(3, decimals), variable.letter)),
    mostListed,
  )
  return {
    ...emptyResult,
    marks: [
      ...(level === null
        ? []
        : [
            {
              kind: 'level',
              id: 'target',
              layer: 'marks',
              lane,
              y: level,
              from,
              to,
              label: formatShort(level, decimals),
            } as const,
          ]),
      ...marks,
    ],
    notes: [parts.length === 0 ? `${claim} nowhere on ${span}.` : `${claim} ${where}.`],
    verdict: {
      complete: found.complete,
      text: found.complete
        ? `Complete: nowhere else on ${span}`
        : `Not settled on ${found.unresolved
            .slice(0, 3)
            .map((stretch) => formatStretch(stretch, Math.max(3, decimals)))
            .join(', ')}`,
      unresolved: found.unresolved,
    },
  }
}

/** "on (1, 3]", "at x = 2" */
function partText({ ends: [a, b], closed }: HoldsOn, decimals: number, letter: string): string {
  if (a === b) return `at ${placeIs(letter, sayNumber(a, decimals))}`
  return `on ${sayStretch([a, b], decimals, closed)}`
}

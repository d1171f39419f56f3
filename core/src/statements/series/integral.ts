import { z } from 'zod'
import { integrate } from '../../calculus/integrate'
import { taylorRemainder } from '../../calculus/remainder'
import { placeTextSchema } from '../../vocabulary/members'
import { formatNumber, formatPower, formatShort, formatTiny } from '../../vocabulary/numbers'
import { unitOfArea, unitOfDerivative, withUnit } from '../../vocabulary/units'
import {
  emptyResult,
  failed,
  lazyTable,
  type LineContext,
  type LineResult,
  type Readout,
  type StatementKind,
} from '../contract'
import { lookAt } from '../shared/atPlace'
import { lookOverFormula, overSpanFields } from '../shared/overSpan'
import {
  curvesMeant,
  curveSlot,
  curveText,
  likelySpan,
  placeSlot,
  placeText,
  spanSlot,
  wordsAfter,
} from '../shared/slots'
import { taylorSaid } from './said'
import { boundText, degreeIn, highestOrder, type Term, termsOf } from './terms'

/** Integral of q over [0, 1] by its series at t = 0, order 8. */
export const seriesIntegralLineSchema = z.strictObject({
  kind: z.literal('seriesIntegral'),
  ...overSpanFields,
  order: z.int().min(0).max(2),
  place: placeTextSchema,
  degree: placeTextSchema,
})
export type SeriesIntegralLine = z.infer<typeof seriesIntegralLineSchema>

/** The same one each time: who looks at it need not look again. */
const orderRole = { words: 'order', marks: [] }

export const seriesIntegralKind: StatementKind<SeriesIntegralLine> = {
  kind: 'seriesIntegral',
  schema: seriesIntegralLineSchema,
  topic: 'series',
  said: ['integrate by series', 'integral by series', 'integrate by its series', 'area by series'],
  ownWords: true,
  uses: { curves: ['curve'], places: ['place'], spans: ['span'], numbers: ['degree'] },

  sentence: (line, context) => [
    { text: 'Integral of ' },
    curveSlot(line, context),
    { text: ' over ' },
    spanSlot(line.span, context),
    { text: ' by its series at ' },
    placeSlot(line.place, context),
    { text: ', order ' },
    { slot: 'number', field: 'degree', ...placeText(line.degree, context) },
  ],

  actions: () => [
    {
      ...{ id: 'play', label: 'Play the order', does: 'follow', field: 'degree', letter: 'n' },
      ...{ table: 'Terms', bounds: { from: 0, to: 16 } },
    },
  ],
  sliderRoles: ({ degree }) => ({ [degree]: orderRole }),

  evaluate(line, context) {
    const read = degreeIn(line.degree, 8, context)
    if (!read.ok) return failed(read.problem)
    const { degree } = read
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const at = lookAt(line, line.order, context)
    if (!at.ok) return failed(at.problem)
    const { x, exact } = at.at
    const { letter } = context.variable
    const terms = termsOf(over.curve, line.order, {
      ...{ x, at: exact, letter, degree: highestOrder, decimals: context.decimals },
    })
    if (terms.length <= degree) {
      return failed({
        message: `${line.curve} has no derivative of order ${line.order + terms.length} at ${letter} = ${formatShort(x, 6)}`,
        fix:
          terms.length > 1 ? `give order ${terms.length - 1}, or move the place` : 'move the place',
      })
    }
    return told(line, { ...over, x, terms, degree }, context)
  },

  offers(request) {
    const rest = wordsAfter(request.text, ...seriesIntegralKind.said)
    if (rest === null || request.text === '') return []
    const said = taylorSaid(rest, request.variable.letter)
    if (said.rest !== '' || said.beside !== null || said.under !== null || said.all) return []
    return curvesMeant(said.curve, request)
      .refs.filter((ref) => ref.order <= 2)
      .map((ref) => {
        const span = likelySpan(said.span, request, ref.curve)
        const line = { kind: 'seriesIntegral' as const, id: '', ...ref, span }
        return { line: { ...line, place: said.place ?? span.from, degree: said.degree ?? '8' } }
      })
  },
}

interface Over {
  curve: Parameters<typeof termsOf>[0]
  from: number
  to: number
  x: number
  /** All that are worked out. */
  terms: readonly Term[]
  degree: number
}

/** The integral of each term over the span. */
const integralsOf = ({ terms, from, to, x }: Over) =>
  terms.map(({ coefficient, k }) =>
    coefficient === 0 ? 0 : (coefficient * ((to - x) ** (k + 1) - (from - x) ** (k + 1))) / (k + 1),
  )

function told(line: SeriesIntegralLine, over: Over, context: LineContext): LineResult {
  const { curve, from, to, x, degree, terms } = over
  const { decimals, variable } = context
  const { f } = curve.derivative(line.order)
  const parts = integralsOf(over)
  const sum = parts.slice(0, degree + 1).reduceRight((total, part) => total + part, 0)
  const exact = context.memo(curve, `integral ${line.order} ${from} ${to}`, () =>
    integrate(f, from, to),
  )
  const unit = unitOfArea(unitOfDerivative(curve.unit, variable.unit, line.order), variable.unit)
  const digits = Math.max(6, decimals)
  const number = (id: string, value: number, text: string): Readout => ({
    ...{ id, label: id, text: withUnit(text, unit), value },
  })
  const isKnown = Number.isFinite(exact.value)
  const error = exact.value - sum
  const bound = context.memo(
    curve,
    `series bound ${line.order} ${x} ${degree} ${from} ${to}`,
    () => taylorRemainder(f, x, degree).boundOn(from, to).bound,
  )
  const whole = bound * (to - from)
  return {
    ...emptyResult,
    readouts: [
      number('sum', sum, formatNumber(sum, digits)),
      ...(isKnown
        ? [
            number('exact', exact.value, formatNumber(exact.value, digits)),
            number('error', error, formatTiny(error, digits)),
          ]
        : []),
      ...(Number.isFinite(whole) ? [number('bound', whole, boundText(whole))] : []),
    ],
    notes: [
      ...(Number.isFinite(whole)
        ? [
            `The error is at most the bound: what is proven of the terms left out, times the width of the span.`,
          ]
        : ['No bound is proven: a derivative is missing or unbounded on the span.']),
      ...alternatingTold(parts, degree, terms),
      ...(isKnown ? [] : [`${curveText(line)} has no integral over the span to compare with.`]),
    ],
    tables: [
      lazyTable(
        {
          name: 'Terms',
          columns: ['k', 'coefficient', 'integral of the term', 'sum so far', 'error'],
          count: degree + 1,
          open: false,
        },
        () => {
          let total = 0
          return parts.slice(0, degree + 1).map((part, k) => {
            total += part
            const left = exact.value - total
            return {
              cells: [
                String(k),
                terms[k]!.text,
                formatTiny(part, digits),
                formatNumber(total, digits),
                isKnown ? formatTiny(left, digits) : '—',
              ],
              values: [k, terms[k]!.coefficient, part, total, isKnown ? left : null],
            }
          })
        },
      ),
    ],
  }
}

/** What the next term says, where the terms that are worked out alternate and decrease. */
function alternatingTold(
  parts: readonly number[],
  degree: number,
  terms: readonly Term[],
): string[] {
  const left = parts.flatMap((part, k) => (part !== 0 && k > degree ? [{ part, k }] : []))
  const last = parts.slice(0, degree + 1).findLast((part) => part !== 0)
  const [next] = left
  if (!next || last === undefined || left.length < 3) return []
  const all = [last, ...left.map(({ part }) => part)]
  const goesOn = all
    .slice(1)
    .every(
      (part, i) => Math.sign(part) === -Math.sign(all[i]!) && Math.abs(part) < Math.abs(all[i]!),
    )
  if (!goesOn) return []
  const leftOut = Math.abs(next.part)
  const size = leftOut >= 1e-3 ? formatShort(leftOut, 4) : formatPower(leftOut, 2)
  return [
    `The terms alternate and decrease, as far as order ${terms.length - 1}; where they go on so to 0, the error is at most the next one, ${size} of order ${next.k}.`,
  ]
}

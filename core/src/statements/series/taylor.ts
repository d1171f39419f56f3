import { z } from 'zod'
import { convergenceRadius } from '../../calculus/convergence'
import { taylorRemainder } from '../../calculus/remainder'
import { withValues } from '../../evaluate/withValues'
import { commonMembers, nameSchema, placeTextSchema, spanSchema } from '../../vocabulary/members'
import { formatNumber, formatPower, formatShort, formatTiny } from '../../vocabulary/numbers'
import { unitOfDerivative, withUnit } from '../../vocabulary/units'
import {
  emptyResult,
  failed,
  lazyTable,
  type LineContext,
  type LineProblem,
  type LineResult,
  type Mark,
  type Phrase,
  type Readout,
  type ResultTable,
  type StatementKind,
} from '../contract'
import { type AtPlace, lookAt, missingDerivative } from '../shared/atPlace'
import {
  curveSlot,
  curvesMeant,
  curveText,
  likelyPlace,
  placeSaid,
  placeSlot,
  placeText,
  spanSlot,
  wordsAfter,
} from '../shared/slots'
import { taylorSaid } from './said'
import {
  boundText,
  formulaText,
  highestOrder,
  polynomialAt,
  polynomialTree,
  type Term,
  termsOf,
} from './terms'

/** Taylor polynomial of q at t = a, order 3. */
export const taylorLineSchema = z.strictObject({
  kind: z.literal('taylor'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  place: placeTextSchema,
  /** Its order, as typed: a whole number from 0 to 40. */
  degree: placeTextSchema,
  /** Whether those of all lower orders are drawn as well. */
  all: z.boolean().optional(),
  /** Where its error is told. */
  beside: placeTextSchema.optional(),
  /** Where a bound of its error is proven. */
  span: spanSchema.optional(),
  /** What the error is to stay under. */
  under: placeTextSchema.optional(),
})
export type TaylorLine = z.infer<typeof taylorLineSchema>

const topOrder = 12

export const taylorKind: StatementKind<TaylorLine> = {
  kind: 'taylor',
  schema: taylorLineSchema,
  topic: 'series',
  said: [
    'taylor polynomial',
    'taylor series',
    'taylor',
    'maclaurin polynomial',
    'maclaurin series',
    'maclaurin',
    'which order',
    'which degree',
  ],
  uses: {
    curves: ['curve'],
    places: ['place', 'beside'],
    spans: ['span'],
    numbers: ['degree', 'under'],
  },
  drawn: { pointWidth: 10 },

  sentence: (line, context) => [
    { text: 'Taylor polynomial of ' },
    curveSlot(line, context),
    { text: ' at ' },
    placeSlot(line.place, context),
    { text: ', order ' },
    { slot: 'number', field: 'degree', ...placeText(line.degree, context) },
    ...(line.beside === undefined
      ? []
      : [
          { text: ', error at ' },
          { ...placeSlot(line.beside, context), field: 'beside' } as Phrase,
        ]),
    ...(line.span === undefined ? [] : [{ text: ', over ' }, spanSlot(line.span, context)]),
    ...(line.under === undefined
      ? []
      : [
          { text: ', error under ' },
          { slot: 'number', field: 'under', ...placeText(line.under, context) } as Phrase,
        ]),
  ],

  actions: (line) => [
    {
      id: 'play',
      label: 'Play the order',
      does: 'follow',
      field: 'degree',
      letter: 'n',
      table: 'Terms',
      bounds: { from: 0, to: topOrder },
    },
    {
      id: 'all',
      label: 'All orders',
      does: 'change',
      change: { all: line.all ? undefined : true },
      pressed: line.all === true,
    },
    {
      id: 'beside',
      label: 'Error at a place',
      does: 'change',
      change: { beside: line.beside === undefined ? `${line.place} + 0.5` : undefined },
      pressed: line.beside !== undefined,
    },
    {
      id: 'over',
      label: 'Bound over a span',
      does: 'change',
      change: {
        span: line.span === undefined ? { from: line.place, to: `${line.place} + 1` } : undefined,
      },
      pressed: line.span !== undefined,
    },
    {
      id: 'under',
      label: 'Error under',
      does: 'change',
      change: { under: line.under === undefined ? '0.001' : undefined },
      pressed: line.under !== undefined,
    },
  ],

  sliderRoles: ({ degree }) => ({ [degree]: orderRole }),

  evaluate(line, context) {
    const read = context.number(line.degree)
    if (!read.ok) return failed(read.problem)
    const degree = read.value
    if (!Number.isInteger(degree) || degree < 0 || degree > highestOrder) {
      return failed({
        message: `an order is a whole number from 0 to ${highestOrder}, and not ${formatShort(degree, 6)}`,
        fix: `give ${degree > highestOrder ? String(highestOrder) : '3'}`,
      })
    }
    const found = lookAt(line, line.order + degree, context)
    if (!found.ok) return failed(found.problem)
    return told(line, found.at, degree, context)
  },

  offers(request) {
    const rest = wordsAfter(request.text, ...taylorKind.said)
    if (rest === null || request.text === '') return []
    const isMaclaurin = /^mac/i.test(request.text)
    const said = taylorSaid(rest, request.variable.letter)
    if (said.rest !== '') return []
    const { refs } = curvesMeant(said.curve, request)
    const { place, sliders } =
      said.place !== null
        ? placeSaid(said.place, request)
        : isMaclaurin
          ? { place: '0', sliders: [] }
          : likelyPlace(request)
    return refs
      .filter((ref) => ref.order <= 2)
      .map((ref) => ({
        line: {
          ...{ kind: 'taylor' as const, id: '', ...ref, place },
          degree: said.degree ?? '3',
          ...(said.all ? { all: true } : {}),
          ...(said.beside === null ? {} : { beside: said.beside }),
          ...(said.span === null ? {} : { span: said.span }),
          ...(said.under === null ? {} : { under: said.under }),
        },
        newSliders: sliders,
      }))
  },
}

/** The same one each time: who looks at it need not look again. */
const orderRole = { words: 'order', marks: [] }

function told(line: TaylorLine, at: AtPlace, degree: number, context: LineContext): LineResult {
  const { variable, decimals } = context
  const { letter } = variable
  const { curve, x } = at
  const terms = termsOf(curve, line.order, { x, at: at.exact, letter, degree, decimals })
  if (terms.length <= degree) {
    const order = line.order + terms.length
    const missing = missingDerivative({ curve: line.curve, order }, at, letter)
    return failed(
      order <= 2
        ? missing
        : {
            message: `${line.curve} has no derivative of order ${order} at ${letter} = ${formatShort(x, 6)}`,
            fix:
              terms.length > 1
                ? `give order ${terms.length - 1}, or move the place`
                : 'move the place',
          },
    )
  }
  const lane = { curve: line.curve, order: line.order }
  const { f } = curve.derivative(line.order)
  const unit = unitOfDerivative(curve.unit, variable.unit, line.order)
  const drawnOver = [curve.reach.from, curve.reach.to].map((v, i) =>
    Number.isFinite(v) ? v : (curve.window ?? [x - 10, x + 10])[i]!,
  ) as [number, number]
  const graph = (k: number, id: string, pale?: true): Mark => ({
    ...{ kind: 'graph', id, layer: 'marks', lane, from: drawnOver[0], to: drawnOver[1] },
    ...(pale ? { pale } : {}),
    of: { formula: polynomialTree(terms.slice(0, k + 1), letter, x), letter },
  })
  const beside = besideOf(line, context)
  if (beside && 'problem' in beside) return failed(beside.problem)
  const proven = provenOf(line, x, degree, f, terms, context)
  if ('problem' in proven) return failed(proven.problem)
  const place = context.variable.letter === line.place ? line.place : formatShort(x, 6)
  return {
    ...emptyResult,
    readouts: [
      {
        id: 'formula',
        label: 'formula',
        text: `y = ${formulaText(terms, letter, place, x)}`,
      },
      ...(beside ? errorReadouts(terms, x, beside.b, f, unit, degree, context) : []),
      ...proven.readouts,
    ],
    marks: [
      ...(line.all ? terms.slice(0, -1).map((_, k) => graph(k, `order@${k}`, true)) : []),
      graph(degree, 'polynomial'),
      ...(beside && Number.isFinite(f.value(beside.b))
        ? [gapMark(terms, x, beside.b, f, lane)]
        : []),
      {
        ...{ kind: 'dot', id: 'point', layer: 'points', lane, x, y: terms[0]!.derivative },
        place: line.place,
      },
    ],
    notes: [...radiusNotes(line, at, f, decimals), ...proven.notes],
    conclusions: proven.conclusions,
    tables: [termsTable(terms, x, beside?.b ?? null, f, line, context)],
  }
}

function besideOf(
  line: TaylorLine,
  context: LineContext,
): { b: number } | { problem: LineProblem } | null {
  if (line.beside === undefined) return null
  const read = context.number(line.beside)
  return read.ok ? { b: read.value } : { problem: read.problem }
}

type Function = AtPlace['curve']['f']

function errorReadouts(
  terms: readonly Term[],
  x: number,
  b: number,
  f: Function,
  unit: string,
  degree: number,
  { decimals, variable }: LineContext,
): Readout[] {
  const value = polynomialAt(terms, b - x)
  const truth = f.value(b)
  const number = (id: string, v: number): Readout => ({
    ...{ id, label: id, text: withUnit(formatTiny(v, decimals), unit), value: v },
  })
  const there = {
    ...number('polynomial', value),
    text: withUnit(formatNumber(value, decimals), unit),
  }
  if (!Number.isFinite(truth)) return [there]
  const [slope] = [terms[1]?.derivative]
  return [
    there,
    { ...number('value', truth), text: withUnit(formatNumber(truth, decimals), unit) },
    number('error', truth - value),
    ...(degree === 1 && slope !== undefined
      ? [
          number(`d${variable.letter}`, b - x),
          number('dy', slope * (b - x)),
          number('Δy', truth - terms[0]!.derivative),
        ].map((one, i) =>
          i === 0 ? { ...one, text: withUnit(formatTiny(b - x, decimals), variable.unit) } : one,
        )
      : []),
  ]
}

/** The error as an upright stretch between curve and polynomial. */
const gapMark = (
  terms: readonly Term[],
  x: number,
  b: number,
  f: Function,
  lane: Mark['lane'],
): Mark => ({
  ...{ kind: 'joint', id: 'error', layer: 'marks', lane, x: b, y: f.value(b), toX: b },
  ...{ toY: polynomialAt(terms, b - x), label: '' },
})

/** What is proven of the error: its bound over a span, and where it stays under what is allowed. */
function provenOf(
  line: TaylorLine,
  x: number,
  degree: number,
  f: Function,
  terms: readonly Term[],
  context: LineContext,
):
  | { readouts: Readout[]; notes: string[]; conclusions: { text: string; at?: number }[] }
  | { problem: LineProblem } {
  const nothing = {
    readouts: [] as Readout[],
    notes: [] as string[],
    conclusions: [] as { text: string; at?: number }[],
  }
  if (line.span === undefined && line.under === undefined) return nothing
  const under = line.under === undefined ? null : context.number(line.under)
  if (under && !under.ok) return { problem: under.problem }
  if (under && !(under.value > 0)) {
    return {
      problem: {
        message: `an error stays under a number above 0, and not ${formatShort(under.value, 6)}`,
        fix: 'give 0.001',
      },
    }
  }
  const found = context.curve(line.curve)
  if (!found.ok) return { problem: found.problem }
  if (!found.curve.formula) {
    return { ...nothing, notes: [`${line.curve} has no formula, so no bound is proven.`] }
  }
  const key = `remainder ${line.order} ${x} ${degree}`
  const remainder = context.memo(found.curve, key, () => taylorRemainder(f, x, degree))
  const { letter } = context.variable
  const show = (v: number) => formatShort(v, 6)
  if (line.span === undefined) {
    const [from, to] = [
      Math.max(found.curve.from, found.curve.reach.from),
      Math.min(found.curve.to, found.curve.reach.to),
    ]
    const stretch = remainder.stretchUnder(under!.value, Math.min(from, x), Math.max(to, x))
    return { ...nothing, conclusions: [stretchTold(stretch, under!.value, letter, context)] }
  }
  const [from, to] = [context.number(line.span.from), context.number(line.span.to)]
  if (!from.ok) return { problem: from.problem }
  if (!to.ok) return { problem: to.problem }
  if (!(from.value < to.value)) {
    return {
      problem: {
        message: `the span runs from ${show(from.value)} to ${show(to.value)}`,
        fix: 'let it begin below its end',
      },
    }
  }
  const span = [from.value, to.value] as const
  const { bound, form } = remainder.boundOn(...span)
  const name = `|${curveText(line)} − P|`
  const where = `[${show(span[0])}, ${show(span[1])}]`
  const readout: Readout = Number.isFinite(bound)
    ? { id: 'bound', label: 'bound', text: boundText(bound), value: bound }
    : { id: 'bound', label: 'bound', text: 'none' }
  const reason =
    form === null
      ? `by enclosing ${curveText(line)} − P piece by piece`
      : `by what the derivative of order ${line.order + form} can be between there and ${letter} = ${show(x)}`
  const notes = Number.isFinite(bound)
    ? [`${name} is at most the bound on ${where}: ${reason}.`]
    : [`No bound is proven on ${where}: a derivative is missing or unbounded there.`]
  return {
    readouts: [readout],
    notes,
    conclusions: under ? enoughTold(under.value, span, x, f, line, terms, context) : [],
  }
}

function stretchTold(
  stretch: readonly [number, number] | null,
  under: number,
  letter: string,
  context: LineContext,
): { text: string; at?: number } {
  const allowed = under >= 1e-3 ? formatShort(under, 9) : formatPower(under, 3)
  if (!stretch)
    return { text: `It is not proven that the error stays under ${allowed} even at the place.` }
  const digits = Math.max(3, context.decimals)
  const step = 10 ** -digits
  // Towards the place, so that what is said stays true.
  const [a, b] = [
    Math.ceil(stretch[0] / step - 1e-9) * step,
    Math.floor(stretch[1] / step + 1e-9) * step,
  ]
  return {
    text: `|error| stays under ${allowed} for ${letter} from ${formatShort(a, digits)} to ${formatShort(b, digits)}: proven.`,
  }
}

/** Which order is enough over a span, and what shows that the one before is not. */
function enoughTold(
  under: number,
  [from, to]: readonly [number, number],
  x: number,
  f: Function,
  line: TaylorLine,
  _terms: readonly Term[],
  context: LineContext,
): { text: string; at?: number }[] {
  const found = context.curve(line.curve)
  if (!found.ok) return []
  const { curve } = found
  const allowed = under >= 1e-3 ? formatShort(under, 9) : formatPower(under, 3)
  const key = `enough ${line.order} ${x} ${from} ${to} ${under}`
  const answer = context.memo(curve, key, () => {
    for (let n = 0; n <= highestOrder; n++) {
      const { bound } = taylorRemainder(f, x, n).boundOn(from, to)
      if (bound <= under) return { n, bound }
    }
    return null
  })
  const where = `[${formatShort(from, 6)}, ${formatShort(to, 6)}]`
  if (!answer) {
    return [
      {
        text: `No order up to ${highestOrder} is proven to keep |error| under ${allowed} on ${where}.`,
      },
    ]
  }
  const { n, bound } = answer
  const enough = {
    text: `Order ${n} is enough on ${where}: |error| is at most ${boundText(bound)}.`,
  }
  if (n === 0) return [enough]
  const before = termsOf(curve, line.order, {
    x,
    at: null,
    letter: context.variable.letter,
    degree: n - 1,
    decimals: 3,
  })
  const worst = worstOf(f, before, x, from, to)
  return [
    enough,
    worst.error > under * (1 + 1e-9)
      ? {
          text: `Order ${n - 1} is not: at ${context.variable.letter} = ${formatShort(worst.at, 6)} |error| ≈ ${formatTiny(worst.error, Math.max(3, Math.ceil(-Math.log10(under)) + 1))}.`,
          at: worst.at,
        }
      : { text: `Whether order ${n - 1} is enough as well is not settled.` },
  ]
}

function worstOf(f: Function, terms: readonly Term[], x: number, from: number, to: number) {
  let worst = { at: from, error: 0 }
  for (let i = 0; i <= 200; i++) {
    const at = i === 200 ? to : from + ((to - from) * i) / 200
    const error = Math.abs(f.value(at) - polynomialAt(terms, at - x))
    if (error > worst.error) worst = { at, error }
  }
  return worst
}

/** A number in running text: as it is, or rounded and marked as that. */
function roundedText(value: number, decimals: number): string {
  const text = formatShort(value, Math.max(3, decimals))
  return Number(text) === value ? text : `≈ ${text}`
}

function radiusNotes(
  line: TaylorLine,
  { curve, x }: AtPlace,
  f: Function,
  decimals: number,
): string[] {
  if (!curve.formula) return []
  const radius = convergenceRadius(withValues(f.tree, f.parameters), f.variable, x)
  if (!radius) return []
  const what = `The Taylor series of ${curveText(line)} there`
  return radius.radius === Infinity
    ? [`${what} converges everywhere, because ${radius.because}.`]
    : [
        `${what} has the radius of convergence ${roundedText(radius.radius, decimals)}, because ${radius.because}.`,
      ]
}

function termsTable(
  terms: readonly Term[],
  x: number,
  b: number | null,
  f: Function,
  line: TaylorLine,
  context: LineContext,
): ResultTable {
  const digits = Math.max(6, context.decimals)
  const { letter } = context.variable
  const name = curveText(line)
  return lazyTable(
    {
      name: 'Terms',
      columns: [
        'k',
        `${name}⁽ᵏ⁾(${formatShort(x, 4)})`,
        'k!',
        'coefficient',
        ...(b === null ? [] : [`term at ${letter} = ${formatShort(b, 4)}`, 'sum so far', 'error']),
      ],
      count: terms.length,
      open: false,
    },
    () => {
      let [sum, factorial] = [0, 1]
      const truth = b === null ? NaN : f.value(b)
      return terms.map(({ k, derivative, coefficient, text }) => {
        if (k > 1) factorial *= k
        const own = [
          formatTiny(derivative, digits),
          factorial < 1e15 ? String(factorial) : formatPower(factorial, 6),
          text,
        ]
        if (b === null) {
          return { cells: [String(k), ...own], values: [k, derivative, factorial, coefficient] }
        }
        const term = coefficient * (b - x) ** k
        sum += term
        const error = truth - sum
        return {
          cells: [
            String(k),
            ...own,
            formatTiny(term, digits),
            formatNumber(sum, digits),
            Number.isFinite(error) ? formatTiny(error, digits) : '—',
          ],
          values: [
            k,
            derivative,
            factorial,
            coefficient,
            term,
            sum,
            Number.isFinite(error) ? error : null,
          ],
        }
      })
    },
  )
}

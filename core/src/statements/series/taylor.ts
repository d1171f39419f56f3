import { convergenceRadius } from '../../calculus/convergence'
import { withValues } from '../../evaluate/withValues'
import { formatNumber, formatShort, formatTiny, sayNumber } from '../../vocabulary/numbers'
import { unitOfDerivative, withUnit } from '../../vocabulary/units'
import {
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type LineResult,
  type Mark,
  type Phrase,
  type Readout,
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
import { type TaylorLine, taylorLineSchema } from './line'
import { provenOf } from './proven'
import { taylorSaid } from './said'
import { termsTable } from './termsTable'
import { formulaText, degreeIn, polynomialAt, polynomialTree, type Term, termsOf } from './terms'

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
    const read = degreeIn(line.degree, 3, context)
    if (!read.ok) return failed(read.problem)
    const { degree } = read
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
  const beside = besideOf(line, at, context)
  if ('problem' in beside) return failed(beside.problem)
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
      ...(beside.asked
        ? errorReadouts(terms, x, beside.b, f, unit, degree, context)
        : errorAlone(terms, x, beside.b, f, unit, context)),
      ...proven.readouts,
    ],
    marks: [
      ...(line.all ? terms.slice(0, -1).map((_, k) => graph(k, `order@${k}`, true)) : []),
      graph(degree, 'polynomial'),
      ...(beside.asked && Number.isFinite(f.value(beside.b))
        ? [gapMark(terms, x, beside.b, f, lane)]
        : []),
      {
        ...{ kind: 'dot', id: 'point', layer: 'points', lane, x, y: terms[0]!.derivative },
        place: line.place,
      },
    ],
    notes: [...radiusNotes(line, at, f, decimals), ...proven.notes],
    conclusions: proven.conclusions,
    tables: [termsTable(terms, x, beside.b, f, line, context)],
  }
}

/**
 * Where the error is told: where it was asked for, else one further on, or one back where the curve ends
 * before.
 */
function besideOf(
  line: TaylorLine,
  { curve, x }: AtPlace,
  context: LineContext,
): { b: number; asked: boolean } | { problem: LineProblem } {
  if (line.beside !== undefined) {
    const read = context.number(line.beside)
    return read.ok ? { b: read.value, asked: true } : { problem: read.problem }
  }
  const { from, to } = curve.reach
  return { b: x + 1 <= to ? x + 1 : Math.max(from, x - 1), asked: false }
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

/** The error where nobody has asked for it, with the place at which it is. */
function errorAlone(
  terms: readonly Term[],
  x: number,
  b: number,
  f: Function,
  unit: string,
  { decimals, variable }: LineContext,
): Readout[] {
  const error = f.value(b) - polynomialAt(terms, b - x)
  if (!Number.isFinite(error)) return []
  const text = `${withUnit(formatTiny(error, decimals), unit)} at ${variable.letter} = ${formatShort(b, 6)}`
  return [{ id: 'error', label: 'error', text, value: error }]
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
        `${what} has the radius of convergence ${sayNumber(radius.radius, Math.max(3, decimals))}, because ${radius.because}.`,
      ]
}

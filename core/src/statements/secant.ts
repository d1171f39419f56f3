import { z } from 'zod'
import { differenceQuotient } from '../calculus/secant'
import type { RealFunction } from '../evaluate/compile'
import { formatNumber, formatPower, formatShort, numberToFormula } from '../vocabulary/numbers'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { unitOfDerivative, withUnit } from '../vocabulary/units'
import { lookAt, missingReason } from './shared/atPlace'
import {
  failed,
  type LineContext,
  type LineProblem,
  type Mark,
  type ResultChart,
  type ResultTable,
  type StatementKind,
} from './contract'
import { estimatedWhere } from './shared/lines'
import { derivativeTree, tellTree, toldLine, toldReadout } from './shared/toldNumbers'
import { negate, product, quotient, sum, type Tree } from '../formula/tree'
import { isBetweenReadings } from './shared/readingsWithin'
import {
  curvesMeant,
  curveSlot,
  curveText,
  likelyPlace,
  placeSlot,
  wordsAfter,
} from './shared/slots'

/** Secant to q from t = a to t = a + h. */
export const secantLineSchema = z.strictObject({
  kind: z.literal('secant'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  from: placeTextSchema,
  to: placeTextSchema,
  /** Whether the table of ever closer secants stands under it. */
  closing: z.boolean().default(false),
  /** The smallest distance of a walk; 0.001 where nothing is said. */
  closest: placeTextSchema.optional(),
})
export type SecantLine = z.infer<typeof secantLineSchema>

/** In a lesson a walk stops here: closer by, rounding begins to take digits. */
const usualClosest = '0.001'

/** Distances by which secants close in: to 0.001 is the classroom's, below it rounding takes over. */
const closingDistances: readonly number[] = Array.from({ length: 17 }, (_, k) => Number(`1e-${k}`))

export const secantKind: StatementKind<SecantLine> = {
  kind: 'secant',
  schema: secantLineSchema,
  topic: 'rates',
  said: ['secant', 'secant to'],
  uses: { curves: ['curve'], places: ['from', 'to'] },
  actions({ closing, from, to, closest = usualClosest }, { sliderOf, number }) {
    const free = sliderOf(to)
    const least = number(closest) ?? Number(usualClosest)
    return [
      {
        id: 'closing',
        label: 'Closing in',
        does: 'change',
        change: { closing: !closing },
        pressed: closing,
      },
      ...(free && !free.place
        ? [
            {
              id: 'walk',
              label: `Walk ${free.name} to 0`,
              does: 'walk' as const,
              distances: closingDistances.filter((d) => d > least * (1 + 1e-9)).concat(least),
              slider: free.name,
              from,
            },
            {
              id: 'closest',
              label: `Walk of ${free.name} stops at`,
              does: 'number' as const,
              field: 'closest',
              words: 'stops at',
              value: least,
            },
          ]
        : []),
    ]
  },
  drawn: { tinted: 'lines', pointWidth: 16 },

  sentence: (line, context) => [
    { text: 'Secant to ' },
    curveSlot(line, context),
    { text: ' from ' },
    { ...placeSlot(line.from, context), field: 'from' },
    { text: ' to ' },
    { ...placeSlot(line.to, context), field: 'to' },
  ],

  evaluate(line, context) {
    const { order } = line
    const { variable, decimals } = context
    const [p, q] = [line.from, line.to].map((place) =>
      lookAt({ curve: line.curve, place }, order + 1, context),
    )
    if (!p!.ok) return failed(p!.problem)
    if (!q!.ok) return failed(q!.problem)
    const { curve, x: a } = p!.at
    const b = q!.at.x
    const [ya, yb] = [p!.at.derivatives[order]!, q!.at.derivatives[order]!]
    const name = curveText(line)
    if (!Number.isFinite(ya) || !Number.isFinite(yb)) {
      const at = Number.isFinite(ya) ? b : a
      return failed({
        message: `${name} has no value at ${variable.letter} = ${formatShort(at, 6)}`,
        fix: 'move that end to where the curve is drawn',
      })
    }
    const f = order === 0 ? curve.f : curve.derivative(order).f
    const table = line.closing ? closingIn(f, a, context) : null
    if (a === b) {
      return {
        ...failed(samePlace(line, a, context)),
        ...(table ?? {}),
      }
    }
    const run = tellTree(sum(q!.at.tree, negate(p!.at.tree)), b - a, context, false).value
    const tangent = p!.at.derivatives[order + 1]!
    const unit = unitOfDerivative(curve.unit, variable.unit, order)
    const slopeUnit = unitOfDerivative(curve.unit, variable.unit, order + 1)
    const lane = { curve: line.curve, order }
    const isTyped = p!.at.exact !== null && q!.at.exact !== null
    const [left, right] = [p!, q!].map(
      (end) => end.ok && derivativeTree(curve, order, end.at, end.at.derivatives[order]!),
    )
    const runTree = sum(q!.at.tree, negate(p!.at.tree))
    const riseTree = left && right ? sum(right, negate(left)) : null
    const slopeTree = riseTree && quotient(riseTree, runTree)
    const steep = derivativeTree(curve, order + 1, p!.at, tangent)
    // A short run is written out in digits, and so is what belongs to it.
    const isShort = Math.abs(run) >= 1e-6 && Math.abs(run) < 1
    const digits = isShort
      ? Math.max(decimals, 3 - Math.floor(Math.log10(Math.abs(run))))
      : decimals
    const small = (tree: Tree | null, value: number) =>
      tellTree(tree, value, { decimals: digits }, isTyped)
    const toldRise = small(riseTree, yb - ya)
    const toldSlope = tellTree(slopeTree, (yb - ya) / run, context, isTyped)
    const slope = toldSlope.value
    const runText = withUnit(
      Math.abs(run) < 1e-6 ? formatPower(run, 3) : formatShort(run, 12),
      variable.unit,
    )
    const rounding = differenceQuotient(f, a, run).rounding
    const marks: Mark[] = [
      { kind: 'line', id: 'secant', layer: 'marks', lane, x: a, y: ya, slope, extent: 'whole' },
      {
        kind: 'chord',
        id: 'slope',
        layer: 'marks',
        lane,
        x: a,
        y: ya,
        toX: b,
        toY: yb,
        rise: withUnit(toldRise.text, unit),
        run: runText,
      },
      { kind: 'dot', id: 'from', layer: 'points', lane, x: a, y: ya, place: line.from },
      { kind: 'dot', id: 'to', layer: 'points', lane, x: b, y: yb, place: line.to },
    ]
    const uncertain = !toldSlope.certain && rounding > 0.5 * 10 ** -decimals
    return {
      readouts: estimatedWhere(isBetweenReadings(curve, order, a, b), [
        toldReadout('slope', toldSlope, slopeUnit),
        toldReadout('rise', toldRise, unit),
        { id: 'run', label: 'run', text: runText, value: run },
        ...(Number.isFinite(tangent)
          ? [toldReadout('dy', small(steep && product(steep, runTree), tangent * run), unit)]
          : []),
        toldLine(
          { place: p!.at, value: left || null, slope: slopeTree },
          { value: ya, slope },
          context,
          isTyped,
        ),
      ]),
      marks,
      problems: [],
      hints: [],
      notes: [
        ...(uncertain
          ? [
              `The ends are so close that rounding alone moves the slope by up to ${rounding.toExponential(0).replace('-', '−')}.`,
            ]
          : []),
        ...(Number.isFinite(tangent)
          ? []
          : [
              `There is no slope at the first end: ${missingReason({ curve: line.curve, order }, p!.at, name)}.`,
            ]),
      ],
      ...(table ?? {}),
      offers: [
        {
          text: `Where is ${name}′ equal to this slope?`,
          line: {
            kind: 'where',
            id: '',
            curve: line.curve,
            order: order + 1,
            target: `(${primed(line)}(${line.to}) - ${primed(line)}(${line.from}))/((${line.to}) - (${line.from}))`,
            span: { from: line.from, to: line.to },
          },
        },
      ],
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'secant to', 'secant')
    if (rest === null) return []
    const { refs, rest: ends } = curvesMeant(rest, request)
    const [, from, to] =
      /^(?:from\s+|between\s+)?(\S+)\s+(?:to|and)\s+(\S.*)$/.exec(
        ends.replace(letterIs(request.variable.letter), ''),
      ) ?? []
    return refs
      .filter((ref) => ref.order <= 2)
      .map(({ curve, order }) => {
        const base = { kind: 'secant' as const, id: '', curve, order, closing: false }
        if (from && to) return { line: { ...base, from, to } }
        const { place, sliders } = likelyPlace(request)
        const h = request.otherSliders.includes('h')
        const bar = request.span
        if (bar) return { line: { ...base, from: bar.from, to: bar.to } }
        return {
          line: { ...base, from: place, to: `${place} + h` },
          newSliders: [
            ...sliders,
            ...(h ? [] : [{ name: 'h', value: 1, from: -2, to: 2, step: 0.01, place: false }]),
          ],
        }
      })
  },
}

const letterIs = (letter: string) => new RegExp(`\\b${letter}\\s*=\\s*`, 'g')
const primed = ({ curve, order }: { curve: string; order: number }) => curve + "'".repeat(order)

/** Why the two ends make no secant: they are one place, or too close to be told apart. */
function samePlace({ from, to }: SecantLine, a: number, context: LineContext): LineProblem {
  const added = to.startsWith(`${from} + `) ? context.number(to.slice(from.length + 3)) : null
  const where = `${context.variable.letter} = ${formatShort(a, 6)}`
  if (added?.ok && added.value !== 0) {
    const apart = formatPower(gapAfter(a))
    return {
      message: `adding ${formatPower(added.value)} to ${formatShort(a, 6)} changes nothing: the numbers a computer has beside it are ${apart} apart`,
      fix: 'let the second end be further away',
    }
  }
  return {
    message: `both ends are at ${where}: one point makes no secant`,
    fix: 'move one end, or say “tangent”',
  }
}

/** The distance to the next larger double, for numbers that are not extreme. */
const gapAfter = (x: number) => 2 ** Math.max(-1074, Math.floor(Math.log2(Math.abs(x))) - 52)

/** Secants from one place to places ever closer, and how far each slope is from the tangent's. */
function closingIn(
  f: RealFunction,
  x: number,
  { variable, decimals }: LineContext,
): { tables: ResultTable[]; charts: ResultChart[] } {
  const slope = f.derivatives(x, 1)[1]!
  const known = Number.isFinite(slope)
  const digits = Math.max(decimals, 5)
  const rules = ['forward', 'backward', 'central'] as const
  const rows = closingDistances.map((h) => {
    const found = rules.map((rule) => differenceQuotient(f, x, h, rule))
    const values = [h, ...found.map((q) => q.value), known ? found[0]!.value - slope : NaN]
    return {
      cells: [
        formatDistance(h),
        ...found.map((q) => (Number.isFinite(q.value) ? formatNumber(q.value, digits) : '—')),
        known && Number.isFinite(values[4]) ? formatPower(values[4]!) : '—',
        known && Number.isFinite(values[4]) ? (found[0]!.tooSmall ? 'rounding' : 'h') : '',
      ],
      values: [...values.map((v) => (Number.isFinite(v) ? v : null)), null],
    }
  })
  const series = rules.map((rule, k) => ({
    name: rule,
    points: closingDistances.flatMap((h, i): [number, number][] => {
      const q = rows[i]!.values[k + 1]
      const error = q === null || q === undefined || !known ? NaN : Math.abs(q - slope)
      return error > 0 && Number.isFinite(error) ? [[h, error]] : []
    }),
  }))
  return {
    tables: [
      {
        name: 'Secants',
        columns: ['h', 'forward', 'backward', 'central', 'off by', 'from'],
        rows,
        count: rows.length,
        open: true,
      },
    ],
    charts: known
      ? [
          {
            name: 'How far each slope is from the tangent’s',
            xLabel: 'h',
            yLabel: 'off by',
            logarithmic: true,
            series,
            summary: `At ${variable.letter} = ${formatShort(x, 6)} the distance falls with h, the central quotient’s fastest, until rounding lets it grow again.`,
          },
        ]
      : [],
  }
}

const formatDistance = (h: number) => (h >= 1e-4 ? numberToFormula(h) : formatPower(h))

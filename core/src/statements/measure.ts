import { placeIs } from './shared/said'
import { sayNumber } from '../vocabulary/numbers'
import { z } from 'zod'
import { type Integral, integrate } from '../calculus/integrate'
import type { RealFunction } from '../evaluate/compile'
import { type End, exactAreaNumber } from '../vocabulary/exactArea'
import type { Told } from '../vocabulary/told'
import {
  type CurveResult,
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type StatementKind,
} from './contract'
import { endOf, tellWithin, toldReadout } from './shared/toldNumbers'
import { lookOverFormula, offersOver, overSpanFields } from './shared/overSpan'
import { curveSlot, curveText, spanSlot, wordsAfter } from './shared/slots'
import { asksOver, longOver, spanFacts } from './shared/spanFacts'

const measures = ['length', 'volume', 'surface'] as const
type Measure = (typeof measures)[number]

/** Length of q over [1, 4], volume of q over [1, 4] turned about the t-axis, and the surface. */
export const measureLineSchema = z.strictObject({
  kind: z.literal('measure'),
  ...overSpanFields,
  order: z.int().min(0).max(1),
  measure: z.enum(measures),
  /** The axis it turns about; a length does not turn. */
  about: z.enum(['across', 'upright']),
})
export type MeasureLine = z.infer<typeof measureLineSchema>

const names: Readonly<Record<Measure, string>> = {
  length: 'Length of ',
  volume: 'Volume under ',
  surface: 'Surface of ',
}

export const measureKind: StatementKind<MeasureLine> = {
  kind: 'measure',
  schema: measureLineSchema,
  topic: 'areas',
  said: ['length', 'length of', 'volume', 'volume of', 'surface', 'surface of'],
  uses: { curves: ['curve'], spans: ['span'] },
  drawn: { tinted: 'areas' },

  sentence: (line, context) => [
    { text: names[line.measure] },
    curveSlot(line, context),
    { text: ' over ' },
    spanSlot(line.span, context),
    ...(line.measure === 'length'
      ? []
      : [
          { text: ', turned about the ' },
          {
            slot: 'choice' as const,
            field: 'about',
            text: axisText(line.about, context.variable.letter),
            source: line.about,
            latex: `\\text{${axisText(line.about, context.variable.letter)}}`,
            choices: (['across', 'upright'] as const).map((value) => ({
              value,
              text: axisText(value, context.variable.letter),
            })),
          },
        ]),
  ],

  long: longOver(asksOver()),

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const inTheWay = obstacle(line, curve, from, to, context)
    if (inTheWay === 'pending') return { ...emptyResult, pending: true }
    if (inTheWay) return failed(inTheWay)
    const asked = context.formula(integrand(line, curve, from, to, context))
    if (!asked.ok) return failed(asked.problem)
    const { f } = asked
    const key = `measure ${line.measure} ${line.about} ${line.order} ${from} ${to}`
    const found = context.memo(curve, key, () => ({ f, size: integrate(f, from, to) }))
    if (!Number.isFinite(found.size.value)) return failed(noSize(line, found.size, context))
    const lane = { curve: line.curve, order: line.order }
    const told = sizeTold(line, found, [from, to], context)
    return {
      ...emptyResult,
      readouts: [toldReadout(line.measure, told, '')],
      // What turns into a solid is the area; a length and a surface are the curve's own.
      marks:
        line.measure === 'volume'
          ? [{ kind: 'shade', id: 'measured', layer: 'insides', lane, from, to, of: lane }]
          : [],
      notes: [rule(line, context)],
    }
  },

  offers(request) {
    const measure = measures.find((one) => wordsAfter(request.text, `${one} of`, one) !== null)
    if (!measure || request.text === '') return []
    const rest = wordsAfter(request.text, `${measure} of`, measure)!
    const axis = /\s*\babout the (\p{L})-axis\s*$/u.exec(rest)
    const words = axis ? rest.slice(0, axis.index) : rest
    const upright = axis !== null && axis[1] === 'y' && request.variable.letter !== 'y'
    return offersOver(words, request, 1, (ref, span) => ({
      kind: 'measure' as const,
      id: '',
      ...ref,
      span,
      measure,
      about: upright ? ('upright' as const) : ('across' as const),
    }))
  },
}

const axisText = (about: MeasureLine['about'], letter: string) =>
  about === 'across' ? `${letter}-axis` : 'upright axis'

/** What is integrated; a curve that is nowhere below the axis goes without the absolute value. */
function integrand(
  line: MeasureLine,
  curve: CurveResult,
  from: number,
  to: number,
  { variable: { letter } }: LineContext,
): string {
  const height = `${curveText(line)}(${letter})`
  const slope = `${curveText(line)}′(${letter})`
  const [least] = curve.derivative(line.order).f.enclose(from, to)
  const size = least >= 0 ? height : `abs(${height})`
  const piece = `√(1 + (${slope})^2)`
  if (line.measure === 'length') return piece
  const away = from >= 0 ? letter : `abs(${letter})`
  const isAcross = line.about === 'across'
  if (line.measure === 'surface') return `2π·${isAcross ? size : away}·${piece}`
  return isAcross ? `π·(${height})^2` : `2π·${away}·${size}`
}

/** What no length or solid can be taken of. */
function obstacle(
  line: MeasureLine,
  curve: CurveResult,
  from: number,
  to: number,
  context: LineContext,
): LineProblem | 'pending' | null {
  const { letter } = context.variable
  const show = (x: number) => sayNumber(x, Math.max(3, context.decimals))
  if (line.measure !== 'length' && line.about === 'upright' && from < 0 && to > 0) {
    return {
      message: 'both sides of the upright axis would turn into each other',
      fix: `choose a span on one side of ${letter} = 0`,
    }
  }
  if (line.measure === 'volume') return null
  const { examination } = spanFacts(curve, line.order, from, to, context)
  if (!examination) return 'pending'
  const gap = examination.breaks.find(
    ({ kind }) => kind !== 'kink' && kind !== 'cusp' && kind !== 'vertical',
  )
  if (!gap) return null
  if (gap.kind === 'domain-end' && (gap.x === from || gap.x === to)) return null
  return {
    message: `${curveText(line)} is broken at ${placeIs(letter, show(gap.x))}, and what is broken has no ${line.measure} as one piece`,
    fix: 'choose a span without the break',
  }
}

function noSize(line: MeasureLine, size: Integral, context: LineContext): LineProblem {
  const show = (x: number) => sayNumber(x, Math.max(3, context.decimals))
  const { letter } = context.variable
  return {
    message: size.undefinedOn
      ? `${curveText(line)} has no value from ${show(size.undefinedOn[0])} to ${show(size.undefinedOn[1])}`
      : `the ${line.measure} grows without bound${size.divergesAt === null ? '' : ` at ${placeIs(letter, show(size.divergesAt))}`}`,
    fix: 'choose another span',
  }
}

function sizeTold(
  line: MeasureLine,
  { f, size }: { f: RealFunction; size: Integral },
  [from, to]: readonly [number, number],
  context: LineContext,
): Told {
  const ends = [endOf(line.span.from, from, context), endOf(line.span.to, to, context)] as const
  const [first, last] = ends.map(({ x, tree }) => ({ value: x, exact: tree })) as [End, End]
  const isTyped = ends.every((end) => end.exact !== null)
  return tellWithin(exactAreaNumber(f, first, last, size), size, context, isTyped)
}

/** The rule it is worked out by. */
function rule(line: MeasureLine, { variable: { letter } }: LineContext): string {
  const name = curveText(line)
  const piece = `√(1 + ${name}′(${letter})²)`
  if (line.measure === 'length') return `It is the integral of ${piece}.`
  if (line.measure === 'surface') {
    return `It is the integral of 2π ${line.about === 'across' ? `|${name}(${letter})|` : `|${letter}|`} ${piece}.`
  }
  return line.about === 'across'
    ? `It is the integral of π ${name}(${letter})²: discs across the axis.`
    : `It is the integral of 2π |${letter}| |${name}(${letter})|: shells around the axis.`
}

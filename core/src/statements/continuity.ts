import { placeIs } from './shared/said'
import { z } from 'zod'
import * as I from '../arithmetic/intervals'
import type { OneSided } from '../features/limits/oneSided'
import type { PlaceFacts, SideFacts } from '../features/place/placeFacts'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { formatShort } from '../vocabulary/numbers'
import type { LineContext, Readout } from './contract'
import { failed, type StatementKind } from './contract'
import { factsAt, lookAt, offersAt } from './shared/atPlace'
import { bothSidesWords, noSlopeWords, numberWords, tendingWords } from './shared/placeWords'
import { curveSlot, curveText, placeSlot, wordsAfter } from './shared/slots'
import { lookAtPlace } from '../features/place/placeFacts'

/** Is q continuous and differentiable at t = 2? Condition by condition. */
export const continuityLineSchema = z.strictObject({
  kind: z.literal('continuity'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(1),
  place: placeTextSchema,
})
export type ContinuityLine = z.infer<typeof continuityLineSchema>

export const continuityKind: StatementKind<ContinuityLine> = {
  kind: 'continuity',
  schema: continuityLineSchema,
  topic: 'limits',
  said: ['continuous', 'continuity', 'continuous at', 'differentiable', 'differentiable at'],
  uses: { curves: ['curve'], places: ['place'] },

  sentence: (line, context) => [
    { text: 'Is ' },
    curveSlot(line, context),
    { text: ' continuous and differentiable at ' },
    placeSlot(line.place, context),
    { text: '?' },
  ],

  evaluate(line, context) {
    const facts = placeFactsOf(line, context)
    if ('problem' in facts) return failed(facts.problem)
    const name = curveText(line)
    return {
      readouts: [continuityReadout(facts), differentiableReadout(facts)],
      marks: [],
      problems: [],
      hints: [],
      conclusions: conditions(facts, name, context.decimals).map((text) => ({ text, at: facts.x })),
    }
  },

  offers(request) {
    const asked = request.text.replace(/^is\s+/i, '').replace(/\?+$/, '')
    const plain = /^(\S+)\s+(continuous|differentiable)\b(.*)$/i.exec(asked)
    const text = plain ? `${plain[2]!} ${plain[1]!}${plain[3]!}` : asked
    const rest = wordsAfter(
      text.replace(/\b(continuous|differentiable) and (continuous|differentiable)\b/i, '$1'),
      'continuous',
      'continuity of',
      'continuity',
      'differentiable',
    )
    if (rest === null) return []
    return offersAt(rest, request, ({ curve, order }, place) =>
      order > 1 || request.measured.includes(curve)
        ? null
        : { kind: 'continuity', id: '', curve, order, place },
    )
  },
}

/** What the curve does there; also where it has no value, which is part of the answer. */
function placeFactsOf(line: ContinuityLine, context: LineContext) {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const { curve } = found
  if (!curve.formula) {
    const message = `${curve.name} has no formula, so nothing is known of its limits`
    return { problem: { message, fix: 'ask about a curve that is given by a formula' } }
  }
  const at = lookAt(line, line.order, context)
  if (at.ok) return factsAt(line, at.at)
  const place = context.number(line.place)
  const inside = place.ok && place.value >= curve.reach.from && place.value <= curve.reach.to
  if (!place.ok || !inside) return at
  return lookAtPlace(curve.derivative(line.order).f, place.value, place.exact)
}

const yes = 'yes'
const open = 'not settled'

function continuityReadout(facts: PlaceFacts): Readout {
  const { value, left, right, kind } = facts
  const sides = [left, right].filter((side) => side.limit)
  const unsettled = sides.some((side) => side.limit?.kind === 'unsettled') || kind === 'unsettled'
  const oneSided = value && sides.length === 1 && sides[0]!.continuous
  const whole = value && sides.length === 2 && sides.every((side) => side.continuous)
  const half = value && sides.length === 2 && sides.find((side) => side.continuous)
  const text = unsettled
    ? open
    : whole
      ? yes
      : oneSided
        ? `yes, from the ${left.limit ? 'left' : 'right'}, where its values are`
        : half
          ? `no, only from the ${half === left ? 'left' : 'right'}`
          : 'no'
  return { id: 'continuous', label: 'continuous', text }
}

function differentiableReadout(facts: PlaceFacts): Readout {
  const { kind } = facts
  const end = onlySide(facts)
  const slope = end ? end.facts.slope : facts.slope
  const has = slope?.kind === 'value'
  const text =
    kind === 'unsettled' || slope?.kind === 'unsettled'
      ? open
      : !has
        ? 'no'
        : end
          ? `from the ${end.side} alone, where its values are`
          : yes
  return {
    id: 'differentiable',
    label: 'differentiable',
    text,
    ...(slope?.kind === 'value' ? { value: I.middle(slope.range) } : {}),
  }
}

/** Each condition with its answer: value, limit, both equal; then the slopes of both sides. */
function conditions(facts: PlaceFacts, name: string, decimals: number): string[] {
  const { value, limit, left, right, x } = facts
  const at = `(${formatShort(x, Math.max(decimals, 3))})`
  const has = value
    ? `${name} has a value there: ${placeIs(name + at, numberWords(value, decimals))}.`
    : `${name} has no value there, so it is neither continuous nor differentiable.`
  const end = onlySide(facts)
  if (value && end) return [has, ...atAnEnd(end, name, decimals)]
  const tends = limitSentence(facts, name, decimals)
  if (!value) return [has, tends]
  const equal = equalSentence(facts, name, at)
  const isContinuous = left.continuous && right.continuous
  if (!isContinuous) {
    return [
      has,
      tends,
      equal,
      `A function that is not continuous on both sides has no slope there.`,
    ]
  }
  const slopes = `The slopes of secants ${slopesWords(left, right, decimals)}.`
  const verdict =
    facts.slope?.kind === 'value'
      ? `Both are finite and equal: ${name} has the slope ${numberWords(facts.slope, decimals)} there.`
      : `So ${name} has no slope there: it ${noSlopeWords(facts, decimals)}.`
  return [has, tends, ...(limit ? [equal] : []), slopes, verdict]
}

/** The side with values at an end of the domain; null where there are two, or none. */
function onlySide({
  left,
  right,
}: PlaceFacts): { side: 'left' | 'right'; facts: SideFacts } | null {
  if (left.limit && !right.limit) return { side: 'left', facts: left }
  return right.limit && !left.limit ? { side: 'right', facts: right } : null
}

/** At an end of the domain limit, continuity and slope are one-sided, and named so. */
function atAnEnd(
  { side, facts: { limit, continuous, slope } }: NonNullable<ReturnType<typeof onlySide>>,
  name: string,
  decimals: number,
): string[] {
  const tends = `Its values end there: from the ${side}, ${name} ${tendingWords(limit, decimals)}.`
  if (!continuous) return [tends, `${name} is not continuous there, from the ${side} either.`]
  const rate = `The slopes of secants from the ${side} ${oneSlope(slope, decimals)}.`
  const verdict =
    slope?.kind === 'value'
      ? `So ${name} has the one-sided slope ${numberWords(slope, decimals)} there.`
      : `So ${name} has no slope there, one-sided or not.`
  return [
    tends,
    `The two are equal, so ${name} is continuous there, from the ${side}.`,
    rate,
    verdict,
  ]
}

function limitSentence(facts: PlaceFacts, name: string, decimals: number): string {
  const { limit } = facts
  if (limit?.kind === 'value') {
    return `It has a limit there: ${name} tends to ${numberWords(limit, decimals)} from both sides.`
  }
  return `It has no limit from both sides there: ${name} ${bothSidesWords(facts, decimals)}.`
}

function equalSentence({ kind, limit, left, right }: PlaceFacts, name: string, at: string) {
  if (limit?.kind === 'value') {
    return kind === 'displaced'
      ? `The two differ, so ${name} is not continuous there.`
      : `The two are equal, so ${name} is continuous there.`
  }
  const side = left.continuous ? 'left' : right.continuous ? 'right' : null
  return side
    ? `${name}${at} is the limit from the ${side} alone, so ${name} is continuous only from the ${side}.`
    : `${name}${at} is neither limit, so ${name} is not continuous there.`
}

function oneSlope(slope: OneSided | null, decimals: number): string {
  switch (slope?.kind) {
    case 'value':
      return `tend to ${numberWords(slope, decimals)}`
    case 'infinite':
      return `${slope.sign > 0 ? 'grow' : 'fall'} without bound`
    case 'none':
      return 'swing without settling'
    default:
      return 'are not settled'
  }
}

function slopesWords(left: SideFacts, right: SideFacts, decimals: number): string {
  const [p, q] = [oneSlope(left.slope, decimals), oneSlope(right.slope, decimals)]
  if (p === q) return `${p} from both sides`
  const both = p.startsWith('tend ') && q.startsWith('tend ')
  return `${p} from the left and ${both ? q.slice('tend '.length) : q} from the right`
}

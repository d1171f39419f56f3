import { z } from 'zod'
import type { Break, Examination, Feature } from '../features/examine'
import { formatCertain, formatShort, formatStretch } from '../vocabulary/numbers'
import { unitOfDerivative, withUnit } from '../vocabulary/units'
import { because, type BecauseFact } from './shared/because'
import {
  emptyResult,
  failed,
  type LineContext,
  type LineResult,
  type Mark,
  placeName,
  type Readout,
  type ResultRow,
  type StatementKind,
  type Verdict,
} from './contract'
import { lookOverFormula, offersOver, overSpanFields } from './shared/overSpan'
import { curveSlot, curveText, spanSlot, wordsAfter } from './shared/slots'
import { type SpanFacts, spanFacts, asksOver, longOver } from './shared/spanFacts'

const wanted = ['features', 'zeros', 'turning points', 'inflections', 'critical points'] as const
type Wanted = (typeof wanted)[number]

/** Turning points of q on [0, 10]. */
export const featuresLineSchema = z.strictObject({
  kind: z.literal('features'),
  ...overSpanFields,
  order: z.int().min(0).max(2),
  only: z.enum(wanted),
  /** Whether the ends of the span belong to it. */
  ends: z.boolean(),
  /** Whether the points carry their words in the picture. */
  labels: z.boolean(),
})
export type FeaturesLine = z.infer<typeof featuresLineSchema>

const heads: Record<Wanted, string> = {
  features: 'Features',
  zeros: 'Zeros',
  'turning points': 'Turning points',
  inflections: 'Inflections',
  'critical points': 'Critical points',
}

export const featuresKind: StatementKind<FeaturesLine> = {
  kind: 'features',
  schema: featuresLineSchema,
  topic: 'extremes',
  said: ['features', 'turning points', 'zeros', 'inflections', 'critical points'],
  uses: { curves: ['curve'], spans: ['span'] },
  actions: ({ labels, ends }) => [
    {
      id: 'labels',
      label: 'Words in the picture',
      does: 'change',
      change: { labels: !labels },
      pressed: labels,
    },
    {
      id: 'ends',
      label: 'Ends belong to it',
      does: 'change',
      change: { ends: !ends },
      pressed: ends,
    },
  ],
  drawn: { pointWidth: 9 },

  sentence: (line, context) => [
    {
      slot: 'choice',
      field: 'only',
      text: heads[line.only],
      source: line.only,
      latex: `\\text{${heads[line.only]}}`,
      choices: wanted.map((value) => ({ value, text: heads[value] })),
    },
    { text: ' of ' },
    curveSlot(line, context),
    { text: ' on ' },
    spanSlot(line.span, context),
  ],

  long: longOver(asksOver()),

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const facts = spanFacts(curve, line.order, from, to, context)
    if (!facts.examination) return { ...emptyResult, pending: true }
    return told(
      line,
      facts,
      facts.examination,
      unitOfDerivative(curve.unit, context.variable.unit, line.order),
      context,
    )
  },

  offers(request) {
    if (request.text === '') return []
    return wanted.flatMap((only) => {
      const rest = wordsAfter(request.text, `${only} of`, only)
      return offersOver(rest, request, 2, (ref, span) => ({
        kind: 'features' as const,
        id: '',
        ...ref,
        only,
        span,
        ends: true,
        labels: true,
      }))
    })
  },
}

/** What people call turning points and what they ask of them. */
interface Found {
  what: string
  feature: Feature
  fact: BecauseFact
}

/** Everything asked for, in order along the span. */
function listOf(
  only: Wanted,
  found: Examination,
  line: FeaturesLine,
  { f, from, to }: SpanFacts,
): Found[] {
  const all: Found[] = []
  const signsAt = signsBeside(f, found, from, to)
  const takes = (w: Wanted) => only === 'features' || only === w
  const turns = new Set(found.turningPoints.map((t) => t.x))
  if (takes('zeros')) {
    for (const feature of found.zeros) all.push({ what: 'zero', feature, fact: signsAt(feature.x) })
  }
  if (takes('turning points') || only === 'critical points') {
    for (const feature of found.turningPoints) {
      const high = feature.kind === 'maximum'
      all.push({
        what: high ? 'high' : 'low',
        feature,
        fact: { kind: 'turns', rises: !high, vanishes: feature.vanishes },
      })
    }
  }
  if (takes('critical points') || only === 'features') {
    for (const feature of found.criticalPoints) {
      if (turns.has(feature.x)) continue
      const missing = breakAt(found, feature.x)?.kind ?? null
      const what = missing === null ? 'rest' : breakWords[missing]
      all.push({ what, feature, fact: { kind: 'keeps', missing } })
    }
  }
  if (takes('inflections')) {
    for (const feature of found.inflections) {
      const up = found.concaveUp.some(
        ([lo]) => Math.abs(lo - feature.x) < 1e-9 * Math.max(1, Math.abs(lo)),
      )
      all.push({
        what: 'inflection',
        feature,
        fact: { kind: 'bends', up, hasTangent: feature.hasTangent, vanishes: feature.vanishes },
      })
    }
  }
  if (only === 'features') {
    for (const one of found.breaks) {
      // A place of its own has a value, if no other beside it.
      const value = one.isolated ? f.value(one.x) : NaN
      const feature: Feature = { x: one.x, value, enclosure: one.enclosure, proven: true }
      if (
        all.some(
          ({ what, feature: { x } }) =>
            Math.abs(x - one.x) <= 1e-9 * Math.max(1, Math.abs(one.x)) && what !== 'zero',
        )
      )
        continue
      all.push({
        what: one.isolated ? 'single value' : breakWords[one.kind],
        feature,
        fact: one.isolated ? { kind: 'alone' } : { kind: 'break', of: one.kind },
      })
    }
  }
  if (line.ends && only === 'features') {
    for (const feature of found.candidates) {
      if (feature.x === from || feature.x === to) {
        all.push({ what: 'end', feature, fact: { kind: 'end' } })
      }
    }
  }
  return all.sort((p, q) => p.feature.x - q.feature.x)
}

/**
 * The signs of f on both sides of a zero. Between neighbouring zeros and breaks f keeps its sign, so
 * one look in the middle tells it; where the list may have gaps, none is told.
 */
function signsBeside(f: SpanFacts['f'], found: Examination, from: number, to: number) {
  const bounds = [
    ...[from, to, ...found.level.flat()],
    ...[...found.zeros, ...found.breaks].map(({ x }) => x),
  ].sort((a, b) => a - b)
  const signOf = (a: number | undefined, b: number | undefined) => {
    const value = a === undefined || b === undefined ? NaN : f.value((a + b) / 2)
    return value > 0 ? 1 : value < 0 ? -1 : null
  }
  return (x: number): BecauseFact => {
    if (!found.complete) return { kind: 'zero', before: null, after: null }
    const before = bounds.findLast((b) => b < x)
    const after = bounds.find((b) => b > x)
    return { kind: 'zero', before: signOf(before, x), after: signOf(x, after) }
  }
}

const breakAt = (found: Examination, x: number): Break | null =>
  found.breaks.find((b) => b.x === x) ?? null
export const breakWords: Record<Break['kind'], string> = {
  jump: 'jump',
  kink: 'kink',
  cusp: 'cusp',
  vertical: 'vertical',
  hole: 'hole',
  pole: 'pole',
  'domain-end': 'end of domain',
  oscillation: 'no limit',
}

function told(
  line: FeaturesLine,
  facts: SpanFacts,
  found: Examination,
  unit: string,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const { from, to } = facts
  const { letter } = variable
  const name = curveText(line)
  const lane = { curve: line.curve, order: line.order }
  const shown = (feature: Feature) => certainly(facts, feature, decimals)
  const all = listOf(line.only, found, line, facts)
  const rows: ResultRow[] = all.map(({ what, feature, fact }) => {
    const { x, value } = shown(feature)
    return {
      cells: [what, x, value, because(fact, name)],
      values: [null, feature.x, Number.isFinite(feature.value) ? feature.value : null, null],
      x: feature.x,
    }
  })
  const marks: Mark[] = all
    .filter(({ feature, what }) => Number.isFinite(feature.value) && what !== 'end')
    .slice(0, 200)
    .map(({ what, feature }) => {
      const { x, value } = shown(feature)
      const label = what === 'zero' ? `${letter} = ${x}` : `${what} ${value} at ${letter} = ${x}`
      return {
        kind: 'stem',
        id: placeName(what, feature.x),
        layer: 'marks',
        lane,
        x: feature.x,
        y: feature.value,
        label: line.labels ? label : '',
      }
    })
  const show = (x: number) => formatShort(x, Math.max(3, decimals))
  const span = `[${show(from)}, ${show(to)}]`
  const plural = line.only === 'features' ? 'feature' : line.only.replace(/s$/, '')
  const verdict: Verdict = {
    complete: found.complete,
    text: found.complete
      ? all.length === 0
        ? `No ${plural} on ${span}: proven`
        : line.only === 'features'
          ? `Complete on ${span}`
          : `Complete: no other ${plural} on ${span}`
      : `Not settled on ${found.unresolved
          .slice(0, 3)
          .map((stretch) => formatStretch(stretch, Math.max(3, decimals)))
          .join(', ')}`,
    unresolved: found.unresolved,
  }
  const decides = line.only !== 'zeros' && line.only !== 'inflections'
  const candidates = decides ? candidateRows(line, facts, found, context) : []
  return {
    ...emptyResult,
    readouts: decides ? extremes(line, found, unit, facts, context) : [],
    marks,
    verdict,
    notes: [
      ...found.level.map(
        ([a, b]) =>
          `${name} is level from ${letter} = ${show(a)} to ${show(b)}: a stretch, not points.`,
      ),
      ...(decides && !found.highest
        ? [`${name} takes no highest value on ${span}${line.ends ? '' : ' without its ends'}.`]
        : []),
      ...(decides && !found.lowest
        ? [`${name} takes no lowest value on ${span}${line.ends ? '' : ' without its ends'}.`]
        : []),
      ...(found.inflections.some((i) => !i.hasTangent) && line.only !== 'zeros'
        ? ['An inflection at a kink has no tangent there.']
        : []),
    ],
    tables: [
      ...(rows.length > 0
        ? [
            {
              name: 'Features' as const,
              columns: ['kind', letter, `${name}(${letter})`, 'because'],
              rows,
              count: rows.length,
              open: true,
            },
          ]
        : []),
      ...(candidates.length > 0
        ? [
            {
              name: 'Candidates' as const,
              columns: [letter, `${name}(${letter})`, 'what', 'extreme'],
              rows: candidates,
              count: candidates.length,
              open: false,
            },
          ]
        : []),
    ],
  }
}

/** A place and its value with the digits that are certain; those that are not carry ≈. */
function certainly({ f }: SpanFacts, { enclosure, value, proven }: Feature, decimals: number) {
  const place = formatCertain(enclosure, decimals)
  const height = Number.isFinite(value)
    ? formatCertain(heights(f, enclosure, value), decimals)
    : null
  const mark = (text: string, certain: boolean) => (certain && proven ? '' : '≈ ') + text
  return {
    x: mark(place.text, place.certain),
    value: height ? mark(height.text, height.certain) : '—',
  }
}

function heights(
  f: SpanFacts['f'],
  [lo, hi]: readonly [number, number],
  value: number,
): [number, number] {
  const [least, greatest] = f.enclose(lo, hi)
  // Across a break the enclosure holds both sides; the value itself is what is shown then.
  return Number.isFinite(least) && Number.isFinite(greatest) && greatest - least < 1e-6
    ? [least, greatest]
    : [value, value]
}

function candidateRows(
  line: FeaturesLine,
  facts: SpanFacts,
  found: Examination,
  { decimals }: LineContext,
): ResultRow[] {
  const { from, to } = facts
  const at = (extreme: Examination['highest'], x: number) =>
    extreme?.at.some((f) => f.x === x) === true
  return found.candidates
    .filter(({ x }) => line.ends || (x !== from && x !== to))
    .map((feature) => {
      const { x, value } = certainly(facts, feature, decimals)
      const isEnd = feature.x === from || feature.x === to
      const says = [
        ...(at(found.highest, feature.x) ? ['highest'] : []),
        ...(at(found.lowest, feature.x) ? ['lowest'] : []),
      ]
      return {
        cells: [x, value, isEnd ? 'end' : 'critical point', says.join(', ')],
        values: [feature.x, feature.value, null, null],
        x: feature.x,
      }
    })
}

/** The absolute extremes, decided by the candidates; without its ends a span may have none. */
function extremes(
  line: FeaturesLine,
  found: Examination,
  unit: string,
  facts: SpanFacts,
  { variable, decimals }: LineContext,
): Readout[] {
  const out = (label: 'highest' | 'lowest', extreme: Examination['highest']): Readout[] => {
    if (!extreme) return []
    const inside = extreme.at.filter((f) => line.ends || (f.x !== facts.from && f.x !== facts.to))
    const first = inside[0]
    if (!first) return []
    const { value, x } = certainly(facts, first, decimals)
    const level = found.level.find(([a, b]) => facts.f.value((a + b) / 2) === extreme.value)
    if (level) {
      const text = `${withUnit(value, unit)} all along ${formatStretch(level, Math.max(3, decimals))}`
      return [{ id: label, label, text, value: extreme.value }]
    }
    const more = inside.length > 1 ? ` and ${inside.length - 1} more` : ''
    return [
      {
        id: label,
        label,
        text: `${withUnit(value, unit)} at ${variable.letter} = ${x}${more}`,
        value: extreme.value,
      },
    ]
  }
  return [...out('highest', found.highest), ...out('lowest', found.lowest)]
}

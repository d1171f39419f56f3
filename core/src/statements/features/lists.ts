import type { Break, Examination, Feature } from '../../features/examination'
import type { BecauseFact } from '../shared/because'
import { near } from '../shared/signStretches'
import type { SpanFacts } from '../shared/spanFacts'
import type { FeaturesLine, Wanted } from './line'

/** What people call turning points and what they ask of them. */
interface Found {
  what: string
  feature: Feature
  fact: BecauseFact
}

/** The sign of f′ before a place (end 1 of a stretch) or after it (end 0), as the course of f tells it. */
function slopeSign(
  { rising, falling, level }: Examination,
  x: number,
  end: 0 | 1,
): 1 | 0 | -1 | null {
  const touches = (all: readonly (readonly [number, number])[]) =>
    all.some((s) => near(s[end], x) || (s[0] < x && x < s[1] && !near(s[0], x) && !near(s[1], x)))
  if (touches(rising)) return 1
  if (touches(falling)) return -1
  return touches(level) ? 0 : null
}

/** Everything asked for, in order along the span. */
export function listOf(
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
      const [before, after] = [slopeSign(found, feature.x, 1), slopeSign(found, feature.x, 0)]
      all.push({ what, feature, fact: { kind: 'keeps', missing, before, after } })
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
      // A place of its own has a value, if no other beside it; an end may have one beside its limit.
      const isEnd = one.x === from || one.x === to
      const value = one.isolated || isEnd ? f.value(one.x) : NaN
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
  if (takes('turning points') || only === 'critical points') {
    for (const feature of found.outstanding) {
      const { where } = feature
      if (where === 'end') continue
      const highest = feature.kind === 'maximum'
      const what = highest ? 'highest nearby' : 'lowest nearby'
      all.push({ what, feature, fact: { kind: 'outstanding', highest, where } })
    }
  }
  if (line.ends && only === 'features') {
    for (const feature of found.candidates) {
      if (feature.x === from || feature.x === to) {
        const one = found.outstanding.find((o) => o.x === feature.x && o.where === 'end')
        all.push({ what: 'end', feature, fact: { kind: 'end', nearby: one?.kind ?? null } })
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
  displaced: 'displaced point',
  pole: 'pole',
  'domain-end': 'end of domain',
  oscillation: 'no limit',
}

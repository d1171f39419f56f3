import { curvesOfLine, spanMembers } from '../statements'
import type { CurveLookup, LineResult, NumberLookup, Phrase } from '../statements/contract'
import { placesOfLine } from '../study/edits/lines'
import { sameSpan } from '../study/edits/spans'
import type { Study } from '../study/schema'
import type { SpanText } from '../vocabulary/members'
import type { Showing } from './showing'

/** A place on the axis: everything with the same text moves together. */
export interface PlaceResult {
  text: string
  value: number
}

/** A span that lines hang on: one bar on the ruler, however many share it. */
export interface SpanResult {
  text: SpanText
  from: number
  to: number
}

/** A study worked out: what its curves, lines and sentences are now. */
export interface Evaluation {
  study: Study
  curves: ReadonlyMap<string, CurveLookup>
  lines: ReadonlyMap<string, LineResult>
  sentences: ReadonlyMap<string, readonly Phrase[]>
  places: readonly PlaceResult[]
  spans: readonly SpanResult[]
  /** Of lines with a condition or in a part: whether they are shown. */
  showing: ReadonlyMap<string, Showing>
  /** The lines that are not shown now. */
  off: ReadonlySet<string>
}

/** How far a span can reach: where every curve is drawn that a line on it is about, or null. */
export function spanBounds(
  { study, curves }: Evaluation,
  text: SpanText,
): { from: number; to: number } | null {
  const names = study.lines.flatMap((line) =>
    spanMembers(line).some(({ span }) => sameSpan(span, text)) ? curvesOfLine(line) : [],
  )
  const drawn = names.flatMap((name) => {
    const found = curves.get(name)
    return found?.ok ? [found.curve] : []
  })
  if (drawn.length === 0) return null
  const [from, to] = [Math.max(...drawn.map((c) => c.from)), Math.min(...drawn.map((c) => c.to))]
  return from < to ? { from, to } : null
}

type Number = (text: string) => NumberLookup

type Off = ReadonlySet<string>

/** The places of a study that have a value, each once; of lines that are off none. */
export function listPlaces(study: Study, off: Off, number: Number): PlaceResult[] {
  const texts = [
    ...study.sliders.filter((s) => s.place).map((s) => s.name),
    ...study.lines.filter(({ id }) => !off.has(id)).flatMap(placesOfLine),
  ]
  return [...new Set(texts.map((t) => t.trim()))].flatMap((text) => {
    const found = number(text)
    return found.ok ? [{ text, value: found.value }] : []
  })
}

/** The spans of a study whose ends have values, each once; of lines that are off none. */
export function listSpans(study: Study, off: Off, number: Number): SpanResult[] {
  const seen = new Set<string>()
  const shown = study.lines.filter(({ id }) => !off.has(id))
  const spans = shown.flatMap((line) => spanMembers(line).map(({ span }) => span))
  return spans.flatMap((text) => {
    if (seen.has(`${text.from} ${text.to}`)) return []
    seen.add(`${text.from} ${text.to}`)
    const [from, to] = [number(text.from), number(text.to)]
    return from.ok && to.ok ? [{ text, from: from.value, to: to.value }] : []
  })
}

export const samePlaces = (a: readonly PlaceResult[], b: readonly PlaceResult[]) =>
  a.length === b.length && a.every((p, i) => p.text === b[i]!.text && p.value === b[i]!.value)

export const sameSpans = (a: readonly SpanResult[], b: readonly SpanResult[]) =>
  a.length === b.length &&
  a.every((s, i) => {
    const other = b[i]!
    return (
      s.from === other.from &&
      s.to === other.to &&
      s.text.from === other.text.from &&
      s.text.to === other.text.to
    )
  })

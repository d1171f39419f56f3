import type { SpanText, Variable } from '../../vocabulary/members'
import type { LaneOf } from './marks'

/** A surface as a request knows it. */
export interface SurfaceSaid {
  name: string
  letters: readonly [string, string]
  /** Its rectangle as text, and as far as its ends have values. */
  sides: readonly [SpanText, SpanText]
  ends: readonly [readonly [number, number], readonly [number, number]] | null
}

/** What "Say what to add" knows when it looks for sentences. */
export interface Request {
  /** The words typed, trimmed. */
  text: string
  /** The same as it came, for what is kept word by word. */
  typed: string
  variable: Variable
  curves: { name: string; from: string; to: string; everywhere?: boolean }[]
  /** Those of them that are given by readings. */
  measured: string[]
  surfaces: readonly SurfaceSaid[]
  sliders: string[]
  /** Sliders that are no places. */
  otherSliders: string[]
  /** The place that is selected, as text, or null. */
  place: string | null
  /** The span that is selected, or null. */
  span: SpanText | null
  /** The curve that is selected, or null for any. */
  ref: LaneOf | null
}

/** A slider that a line brings with it. */
export interface NewSlider {
  name: string
  /** Where it stands and what it can be; a place that says nothing goes to the span's middle. */
  value?: number
  from?: number
  to?: number
  step?: number
  place: boolean
  scale?: 'even' | 'growing'
}

/** A line to add, with the sliders that do not exist yet. */
export interface Proposal<L> {
  line: L
  newSliders?: readonly NewSlider[]
}

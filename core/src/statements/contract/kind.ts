import type { z } from 'zod'
import type { Steps } from '../../features/budget'
import type { SpanText } from '../../vocabulary/members'
import type { Topic } from '../../vocabulary/topics'
import type { ActionFacts, LineAction } from './actions'
import type { CurveContext, LineContext, SurfaceContext } from './context'
import type { CurveLookup } from './curves'
import type { LaneOf } from './marks'
import type { Proposal, Request } from './requests'
import type { LineResult } from './results'
import type { Phrase, SentenceContext } from './sentence'
import type { SurfaceLookup } from './surfaces'

/** What a slider does in a line, for its track. */
export interface SliderRole {
  /** strips, height at */
  words: string
  /** Values with a name of their own; the pointer is drawn to them. */
  marks: readonly { value: number; text: string }[]
}

/**
 * Which members of a line hold what. Renaming, flags and bars on the ruler, dragging and dependence
 * all follow from it.
 */
export interface Uses<L> {
  /** The letter of the curve that the line brings. */
  name?: keyof L & string
  /** Letters of curves it is about. */
  curves?: readonly (keyof L & string)[]
  /** Places on the axis, as text: each has its flag. */
  places?: readonly (keyof L & string)[]
  /** Spans, as text: each has its bar. */
  spans?: readonly (keyof L & string)[]
  /** The span on which its own curve is drawn: it has no bar. */
  domain?: keyof L & string
  /** What its frame opens on while nobody has asked for that span. */
  window?: keyof L & string
  /** The name of the surface that the line brings. */
  surface?: keyof L & string
  /** Names of surfaces it is about. */
  surfaces?: readonly (keyof L & string)[]
  /** Sides of a rectangle, as text: they have no bars. */
  sides?: readonly (keyof L & string)[]
  /** Numbers, and expressions in sliders and curves. */
  numbers?: readonly (keyof L & string)[]
  /** A point that is dragged: its place, its height (null on a curve) and the grid it keeps to. */
  point?: { place: keyof L & string; height: keyof L & string; grid?: keyof L & string }
  /** Words with live values in them. */
  words?: readonly (keyof L & string)[]
  /** Formulas of the variable. */
  formulas?: readonly (keyof L & string)[]
}

/** What a kind of line that brings a curve knows of it. */
export interface CurveSide<L> {
  /** The curve, ready for use, or why there is none. */
  make(line: L, context: CurveContext): CurveLookup
  /** Where it is drawn, as text; `spanOf` tells that of another curve. */
  span(line: L, spanOf: (curve: string) => SpanText): SpanText
  /** It is drawn on the axes of another curve of its unit, where there is one. */
  joins?: true
  /** Given by readings: nothing is known between them. */
  measured?: boolean
  /** The lowest rung of its ladder: -1 for the area from its beginning, which is usual, 0 for itself. */
  lowestOrder?: -1 | 0
  /** The text of the graph that is a derivative of it, and of which order; null where it is a formula. */
  givenBy?(line: L): { graph: string; order: number } | null
  /** The orders whose lanes open with it: its own, unless it says others. */
  opens?(line: L): readonly number[]
}

/** What a kind of line that brings a surface knows of it. */
export interface SurfaceSide<L> {
  letters(line: L): readonly [string, string]
  sides(line: L): readonly [SpanText, SpanText]
  /** The surface, ready for use, or why there is none. */
  make(line: L, context: SurfaceContext): SurfaceLookup
}

/** That a line is drawn, so that it can be hidden and given a look. */
export interface Drawn<L> {
  /** With which others it is told apart by tints, where several are drawn. */
  tinted?: 'lines' | 'areas'
  /** Set where it draws points of its own: how wide they usually are, in pixels. */
  pointWidth?: number
  /** Set where it sets words of its own: how large they usually are, in pixels. */
  typeSize?: (line: L) => number
  /** What its points are is a matter of its sentence. */
  ownShape?: true
  /** The curve or derivative that it stands for on its lane: its sample stands before the sentence. */
  stands?(line: L): LaneOf
}

/**
 * Work of a line that may take too long for the page: done in steps elsewhere, its outcome is data
 * that comes back and is put where `evaluate` finds it.
 */
export interface LongWork<L> {
  /** null where the line has none to do. */
  steps(line: L, context: LineContext): Steps<unknown> | null
  apply(line: L, outcome: unknown, context: LineContext): void
}

/** A kind of line: all that the rest of the project knows about it. */
export interface StatementKind<L extends { kind: string; id: string }> {
  kind: L['kind']
  schema: z.ZodType<L>
  /** Its place in the list of studies; null where it has none of its own. */
  topic: Topic | null
  /** Words that ask for it, the plain one first; none where no words do. */
  said: readonly string[]
  /** What follows those words is its own, and is read by its `offers` alone. */
  ownWords?: true
  /** What asks for it wherever that stands in a request; its `offers` then read all of it. */
  claims?: RegExp
  uses: Uses<L>
  sentence(line: L, context: SentenceContext): Phrase[]
  evaluate(line: L, context: LineContext): LineResult
  /** Lines this kind would offer for what was typed; ids are given later. */
  offers(request: Request): Proposal<L>[]
  /** What it can do beside its slots, in buttons of a word or two. */
  actions?(line: L, facts: ActionFacts): readonly LineAction[]
  /** Its places may be ∞ and −∞. */
  reachesEnds?: true
  long?: LongWork<L>
  curve?: CurveSide<L>
  surface?: SurfaceSide<L>
  drawn?: Drawn<L>
  /** Where it keeps the numbers of a curve row by row, for lines that are worked out from them. */
  tabulates?(line: L): LaneOf
  /** What else is to be seen once it has been added: another curve on the lane of the first. */
  whenAdded?(line: L): { lane: LaneOf; other?: string } | null
  /** What a choice in one of its slots comes to, where that is more than putting it there. */
  choose?(line: L, field: string, text: string): Chosen<L> | null
  /** What the sliders do that stand in this line alone, by their names. */
  sliderRoles?(line: L): Readonly<Record<string, SliderRole>>
}

/** Members to change, or a value for a slider that stands in one of them, which then changes instead. */
export interface Chosen<L> {
  change: Partial<L>
  slide?: { member: keyof L & string; value: number }
}

import type { Tree } from '../../formula/tree'

/** Which lane a mark belongs to: the curve's own, or one of its derivatives'. */
export interface LaneOf {
  curve: string
  order: number
}

/** What a mark follows: a curve of the study or one of its derivatives, or a formula of its own. */
export type Sampled = LaneOf | { formula: Tree; letter: string }

/**
 * What lies on what: the ground stands still while a place moves, insides lie under the curves, and
 * points on everything, so that nothing covers what can be taken hold of.
 */
export type Layer = 'ground' | 'insides' | 'marks' | 'points'

/** What a colour stands for, by the names that renderers know. */
export type MixedInk = `curve${1 | 2 | 3 | 4 | 5}` | 'place' | 'span'
/** A colour between two, or by its hue from 0 to 360 and its lightness from 0 to 100. */
export type Mix =
  { between: readonly [MixedInk, MixedInk]; share: number } | { hue: number; lightness: number }

/** A straight line of a family: a point, its slope (infinite where upright), how far a chord goes on. */
export interface FamilyLine {
  x: number
  y: number
  slope: number
  run: number
  mix: Mix
}

/** A strip as it is drawn; a top that is not level is a parabola through three heights. */
export interface DrawnStrip {
  from: number
  to: number
  height: number
  top?: readonly [left: number, middle: number, right: number]
}

/** A piece of the words of a note. */
export type NoteRun =
  { kind: 'text'; text: string; live?: true; wrong?: true } | { kind: 'maths'; latex: string }
export type NotePin =
  'auto' | 'top left' | 'top right' | 'bottom left' | 'bottom right' | 'spot' | 'place'

/**
 * What a line adds to the picture, in the coordinates of its lane. Marks are data. The name stays
 * with the thing that is marked, and is of its own within the line: slope, zero@-3 for one of many
 * by its place. Looks, moved labels and hidden labels are kept by it.
 */
export type Mark = { id: string; lane: LaneOf; layer: Layer } & (
  | { kind: 'dot'; x: number; y: number; place: string; label?: string }
  | { kind: 'line'; x: number; y: number; slope: number; extent: 'whole' | 'short' }
  /** The rise is told with so many decimals. */
  | {
      kind: 'riseOverRun'
      x: number
      y: number
      slope: number
      decimals: number
      /** The rise over a run of 1, as it is read. */
      rise: string
      /** The slope is known exactly: a rise over another run is written as it is, too. */
      exact: boolean
    }
  | { kind: 'chord'; x: number; y: number; toX: number; toY: number; rise: string; run: string }
  | { kind: 'joint'; x: number; y: number; toX: number; toY: number; label: string }
  | { kind: 'level'; y: number; from: number; to: number; label: string }
  /** A value of the curve, or open a place that it tends to. */
  | { kind: 'spot'; x: number; y: number; filled: boolean }
  /** Upright at x, or y = slope·x + y. */
  | { kind: 'asymptote'; x: number; slope?: undefined; y?: undefined }
  | { kind: 'asymptote'; x?: undefined; slope: number; y: number }
  | { kind: 'stem'; x: number; y: number; label: string }
  | { kind: 'points'; points: readonly (readonly [x: number, y: number])[] }
  | {
      kind: 'graph'
      of: Sampled
      from: number
      to: number
      /** One of several that lead to another. */
      pale?: true
      mix?: Mix
      opacity?: number
    }
  /** Very many straight lines, each of a colour of its own; `between` the ends of chords alone. */
  | {
      kind: 'family'
      lines: readonly FamilyLine[]
      reach: number | null
      between: boolean
      opacity: number
    }
  /** A line through points, broken where one has no value. */
  | { kind: 'path'; points: readonly (readonly [x: number, y: number])[] }
  | {
      kind: 'strips'
      strips: readonly DrawnStrip[]
      slivers: readonly { strip: number; from: number; to: number; area: number }[]
      of: Sampled
    }
  /** A body at a point: a pictogram or a shape, turned along a slope, looking where it goes. */
  | {
      kind: 'body'
      x: number
      y: number
      place: string
      /** It can be dragged in the plane. */
      free: boolean
      shape: string
      /** How wide it is, in pixels. */
      size: number
      slope: number | null
      mirrored: boolean
      /** The words beside it, and as they are heard. */
      label?: string
      spoken: string
    }
  /** The places a search has looked at, in their order; `index` tells several searches apart. */
  | {
      kind: 'walk'
      probes: readonly { x: number; value: number; from: number | null; accepted: boolean }[]
      isWhole: boolean
      index: number
    }
  /** Starts of a search on the ruler, each by the place it ends in; -1 where it ends in none. */
  | { kind: 'starts'; starts: readonly { x: number; valley: number }[] }
  /** What a place has passed while this was shown, along its curve. */
  | { kind: 'trail'; x: number; style: 'broad' | 'dots' | 'tangents' }
  /** Words on the picture. */
  | {
      kind: 'note'
      lines: readonly (readonly NoteRun[])[]
      spoken: string
      pin: NotePin
      shiftX: number
      shiftY: number
      /** How large its words are set, in pixels. */
      type: number
      /** The point it stands beside. */
      point?: { x: number; y: number }
    }
  /** The area from a curve to the axis, or to another one. */
  | { kind: 'shade'; from: number; to: number; of: Sampled; against?: Sampled }
)

/** Digits by which places that are proven apart are told apart in a name. */
const nameDigits = 12
/** The name of one of many marks of a kind, by its place. */
export const placeName = (what: string, x: number) =>
  `${what}@${Number(x.toPrecision(nameDigits)) + 0}`

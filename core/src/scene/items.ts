import type { Layer, Mix, NotePin, NoteRun } from '../statements/contract'
import type { MarkerShape } from '../vocabulary/members'

/** What a colour stands for; the renderer knows the tokens. */
export type Ink =
  `curve${1 | 2 | 3 | 4 | 5}` | 'place' | 'span' | 'axis' | 'grid' | 'quiet' | 'ink' | 'none'

/** Insides: strips and areas by their sign, slivers by what they are, markers in their own ink. */
export type Fill =
  'own' | 'page' | 'strip' | 'stripBelow' | 'over' | 'short' | 'overFlat' | 'shortFlat' | 'area'

/** Which of several like it a line is: each has its own tint of their common colour. */
export type Tint = 1 | 2

/** Where words stand from what they belong to, in pixels, and which end of them. */
export type Side = readonly [dx: number, dy: number, anchor: 'start' | 'middle' | 'end']

/** One thing to draw on a lane, in pixels from its top left corner. */
export type Item = { key: string; layer: Layer; dimmed?: boolean; tint?: Tint } & (
  | {
      kind: 'path'
      d: string
      ink: Ink
      width: number
      /** The order of derivative a curve shows, as its dashes; 0 is solid. */
      order?: number
      dotted?: boolean
      /** Dashes chosen for the line; they win over those of its order. */
      dash?: 'solid' | 'dashed' | 'dotted'
      /** What the inside is filled with. */
      fill?: Fill
      /** Its own colour, in place of that of its ink. */
      mix?: Mix
      /** From 0 to 1; 1 where it is not said. */
      opacity?: number
    }
  | {
      kind: 'rect'
      x: number
      y: number
      width: number
      height: number
      sign: 'positive' | 'negative'
      ink?: undefined
    }
  | {
      kind: 'dot'
      x: number
      y: number
      ink: Ink
      place: string
      shape: MarkerShape
      /** Half its width. */
      reach: number
      /** Someone has chosen how it looks. */
      chosen: boolean
    }
  | {
      kind: 'label'
      x: number
      y: number
      text: string
      ink: Ink
      anchor: 'start' | 'middle' | 'end'
      /** The dot this label belongs to; it may stand on any side of it. */
      beside?: { x: number; y: number }
      /** How far from that dot someone has put it. */
      offset?: readonly [dx: number, dy: number]
      /** Where it may stand from there, the best first; on any side where that is not said. */
      sides?: readonly Side[]
      /** It can be moved and hidden, though it says where it may stand. */
      movable?: true
      /** It is the name of a curve. */
      named?: true
      /** Which label of which line it is: it can be moved and hidden. */
      owner?: { line: string; label: string }
    }
  /** A body in a system of its own: what `transform` says brings it to its point. */
  | {
      kind: 'body'
      x: number
      y: number
      d: string
      transform: string
      ink: Ink
      width: number
      filled: boolean
      place: string
      /** It can be dragged in the plane. */
      free: boolean
      /** Half its width, and where its middle is. */
      reach: number
      cx: number
      cy: number
      /** Its words as they are heard. */
      spoken: string
    }
  /** Words in a box of so many pixels, from its top left corner. */
  | {
      kind: 'note'
      x: number
      y: number
      width: number
      height: number
      ink: Ink
      lines: readonly (readonly NoteRun[])[]
      spoken: string
      /** How large its words are set, in pixels. */
      type: number
      pin: NotePin
      shift: readonly [x: number, y: number]
      beside?: { x: number; y: number }
      /** There is no room for it: it is told, and not seen. */
      unplaced?: true
    }
)

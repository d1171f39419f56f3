import type { SpanText } from '../vocabulary/members'
import type { Corner } from './corners'
import type { Item } from './items'
import type { Inset } from './inset'
import type { Trails } from './trails'

/** What the picture needs from the screen. */
export interface Viewport {
  width: number
  /** The height of each lane by its id. */
  heights: Readonly<Record<string, number>>
  /** Vertical frames to keep while a gesture runs, by lane. */
  held?: ReadonlyMap<string, readonly [number, number]>
  /** The horizontal frame to keep while a gesture runs. */
  heldX?: readonly [number, number]
  /** Something is under way: curves are sampled quickly, and with care when it has ended. */
  hurried?: boolean
  /** Where places have been, by the lines of their trails. */
  trails?: Trails
  /** How much larger than usual words are set, where that is no matter of the look. */
  type?: number
}

export interface PlacedTick {
  at: number
  text: string
  /** Its number would lie on a curve. */
  silent?: boolean
}

export interface LaneScene {
  id: string
  curve: string
  order: number
  /** q′ */
  title: string
  y: readonly [number, number]
  height: number
  ticks: readonly PlacedTick[]
  items: readonly Item[]
  /** One sentence on what is seen, for those who do not see it. */
  summary: string
  /** No part of the curve lies inside the frame. */
  outside: boolean
  /** Its own curve is not drawn: someone has hidden it, or its line is off. */
  unseen: boolean
  /** Why nothing is drawn although there is a curve: a frame that no screen can lay out. */
  undrawn: string | null
  /** What this frame cannot show. */
  hidden: { sentence: string; from: number; to: number } | null
  /** The corners that no curve passes, where the heights and what does not show are told. */
  rangeCorner: Corner | null
  hiddenCorner: Corner | null
  inset: Inset | null
}

/** The flag of a place on the ruler. */
export interface Flag {
  text: string
  value: number
  at: number
  /** How far it stands beside its place, where another flag stands there too. */
  shift: number
  /** The slider that moves when the flag does, or null for a typed number or a tangle. */
  slider: string | null
  /** A typed number, which is replaced when the flag moves. */
  fixed: boolean
}

export interface Scene {
  x: readonly [number, number]
  width: number
  ticks: readonly PlacedTick[]
  lanes: readonly LaneScene[]
  flags: readonly Flag[]
  bars: readonly Bar[]
  /** Starts of searches, from the ruler's left upper corner. */
  starts: readonly Item[]
}

/** A span as a bar on the ruler. */
export interface Bar {
  span: SpanText
  from: { value: number; at: number }
  to: { value: number; at: number }
  /** Bars that would lie on each other stand in rows. */
  row: number
}

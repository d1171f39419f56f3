import type { Evaluation } from '../results/evaluation'
import type { CurveResult, DrawnFunction } from '../statements/contract'
import type { Study } from '../study/schema'
import type { Finding } from './findings'
import type { Keeper } from './keeper'
import type { LabelSides } from './labels'
import type { MarkOfLine } from './lineMarks'
import type { LookOf } from './looks'
import type { PlacedTick, Viewport } from './picture'

export type Findings = ReadonlyMap<string, Finding>

export type Lane = Study['lanes'][number]

/** What all lanes of a picture share. */
export interface Ground {
  evaluation: Evaluation
  viewport: Viewport
  findings: Findings
  x: readonly [number, number]
  /** The frame before it was widened for lanes with equal scale, whose heights it decides. */
  unwidened: readonly [number, number]
  width: number
  ticks: readonly PlacedTick[]
  /** A frame can be too narrow or too wide for any screen. */
  across: boolean
  marksOf: ReadonlyMap<string, readonly MarkOfLine[]>
  lookOf: LookOf
  /** How much larger than usual words are set. */
  type: number
  keeper: Keeper
  /** For each lane which side its labels stood on last. */
  sides: Map<string, LabelSides>
}

/** The curve a lane is about and those laid over it. */
export interface LaneCurves {
  curve: CurveResult
  f: DrawnFunction
  over: { name: string; order: number; curve: CurveResult; f: DrawnFunction; unseen: boolean }[]
  /** Its own curve is not drawn: someone has hidden it, or its line is off. */
  unseen: boolean
  marked: readonly MarkOfLine[]
  /** Its place among all curves, which gives its colour. */
  index: number
}

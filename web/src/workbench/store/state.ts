import type {
  Course,
  Edit,
  Evaluation,
  Examination,
  History,
  LineResult,
  Moved,
  Scene,
  SpanText,
  StoredStudy,
  Study,
  Trails,
  Walk,
  WalkCourse,
} from '@yperkine/core'
import type { StoreApi } from 'zustand'
import type { SaveStatus } from '../saving/autosave'

export interface Size {
  width: number
  heights: Readonly<Record<string, number>>
}

/** What was found about a curve, as it was when it was asked about, on a stretch of the axis. */
export interface Examined {
  subject: unknown
  from: number
  to: number
  examination: Examination
}

export interface Workbench {
  id: string
  history: History
  evaluation: Evaluation
  scene: Scene
  size: Size
  /** Frames kept still while a gesture or a motion runs; x is null where it is what moves. */
  held: { x: Scene['x'] | null; lanes: Scene['lanes'] } | null
  /** The sliders under way, or null while nothing plays. */
  courses: ReadonlyMap<string, Course> | null
  /** Their values on the way: they enter neither history nor autosave. */
  live: ReadonlyMap<string, number>
  /** Where places have been, by the lines of their trails: neither history nor saved. */
  trails: Trails
  /** The walk of a slider towards a place that is under way, or null. */
  walk: WalkCourse | null
  /** What the worker has found out about each curve, and the curve it was asked about. */
  examined: ReadonlyMap<string, Examined>
  /** The place that sentences are offered for first. */
  selectedPlace: string | null
  /** The span that sentences are offered for first. */
  selectedSpan: SpanText | null
  /** Where on the axis the row lies that is pointed at, or null. */
  highlight: number | null
  /** The frame someone went away from, to come back to. */
  left: Pick<Study, 'frame' | 'lanes'> | null
  status: SaveStatus
  fault: string | null
  /** What someone else has made of the study meanwhile. */
  theirs: StoredStudy | null
  /** The study was deleted elsewhere meanwhile. */
  gone: boolean
  /** What stands in “Say what to add”. */
  request: string
  /** What the polite live region says. */
  announcement: string

  /** Applies an edit; edits of one gesture undo as one. */
  apply: (edit: Edit, gesture?: string) => void
  /** Applies a move, and gives back what was moved as it is written then. */
  move: <T>(edit: (study: Study) => Moved<T>, gesture: string) => T
  /** Begins a stretch of edits during which the frame stays still; while panning, only heights do. */
  hold: (what?: 'frame' | 'heights') => void
  /** Ends it, and says what came of it. */
  release: (announcement?: (evaluation: Evaluation) => string) => void
  play: () => void
  /** Stops the motion where it is; that value is the study's from now on. */
  pause: () => void
  /** Leads a slider through ever smaller distances; what its line says of it is spoken. */
  startWalk: (walk: Walk) => void
  stopWalk: () => void
  clearTrails: () => void
  /** Lets some seconds of motion pass. */
  tick: (seconds: number) => void
  /** Moves what the transport moves by one step, as an edit. */
  step: (by: 1 | -1) => void
  undo: () => void
  redo: () => void
  resize: (size: Size) => void
  selectPlace: (place: string | null) => void
  selectSpan: (span: SpanText | null) => void
  setHighlight: (x: number | null) => void
  leave: () => void
  comeBack: () => void
  /** Puts what the longer work of a line came to where it finds it. */
  applyLong: (line: string, pending: LineResult, outcome: unknown) => void
  /** Puts a result in place of a pending one. */
  settle: (pending: LineResult, settled: LineResult) => void
  announce: (text: string) => void
  setRequest: (request: string) => void
  setFinding: (curve: string, found: Examined | null) => void
  setStatus: (status: SaveStatus, fault: string | null) => void
  setTheirs: (theirs: StoredStudy) => void
  setGone: () => void
}

export type SetWorkbench = StoreApi<Workbench>['setState']
export type GetWorkbench = StoreApi<Workbench>['getState']

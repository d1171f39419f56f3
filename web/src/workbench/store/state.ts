import type {
  Course,
  Edit,
  Evaluation,
  Examination,
  History,
  LineResult,
  Motion,
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
  /** How much larger than usual words are set, where that is no matter of the look. */
  type?: number
}

/** What was found about a curve, as it was when it was asked about, on a stretch of the axis. */
export interface Examined {
  subject: unknown
  from: number
  to: number
  examination: Examination
}

/** From the values and frames of one state to those of another. */
export interface Glide {
  /** Seconds since it began. */
  since: number
  values: ReadonlyMap<string, readonly [from: number, to: number]>
  from: Pick<Scene, 'x' | 'lanes'>
  /** Known once the page has made room for the new lanes. */
  to: Pick<Scene, 'x' | 'lanes'> | null
}

export interface Presenting {
  /** When it began, in milliseconds. */
  since: number
  /** The study before, to go back to. */
  before: Study
  /** Whether numbers are seen. */
  numbers: boolean
}

/** How a study is open: to be worked on, to be read, or as its picture alone. */
export type View = 'bench' | 'read' | 'picture'

export interface Workbench {
  id: string
  /** It stays the same as long as the study is open. */
  view: View
  history: History
  /** The study as the step that is open shows it, without what is on its way. */
  shown: Study
  evaluation: Evaluation
  scene: Scene
  size: Size
  /** Frames kept still while a gesture or a motion runs; x is null where it is what moves. */
  held: { x: Scene['x'] | null; lanes: Scene['lanes'] } | null
  /** The sliders under way, or null while nothing plays. */
  courses: ReadonlyMap<string, Course> | null
  /** How the sliders move that play because a step was come to; null while others do. */
  arrival: ReadonlyMap<string, Motion> | null
  /** What a step plays, where it was stopped on its way. */
  halted: ReadonlyMap<string, Course> | null
  /** The way from one step to another, or null. */
  glide: Glide | null
  /** Presenting, since when; null on the workbench. */
  presenting: Presenting | null
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
  /** Goes to a step, or with null to the study itself. */
  goToStep: (id: string | null) => void
  /** Goes on in the lesson, or back. */
  goOn: (by: 1 | -1) => void
  /** Comes at once to where a glide leads. */
  endGlide: () => void
  /** Lets some seconds of a glide pass. */
  glideOn: (seconds: number) => void
  keepStep: () => void
  /** Plays what the step that is open plays; false where it has nothing to play, or has played it. */
  playStep: () => boolean
  /** Keeps the trails as they are with the step that is open, or no longer. */
  keepTrails: (kept: boolean) => void
  present: () => void
  /** Ends it; what was changed meanwhile is kept, or dropped. */
  endPresent: (keep: boolean) => void
  hideNumbers: (hidden: boolean) => void
  /** Lets some seconds of motion pass. */
  tick: (seconds: number) => void
  /** Moves what the transport moves by one step, as an edit. */
  step: (by: 1 | -1) => void
  undo: () => void
  redo: () => void
  /** A scene for a picture of some size. */
  pictureScene: (evaluation: Evaluation, size: Size) => Scene
  /** Scenes of a clip; the frames of a scene that is given hold for all of them. */
  clipScenes: (held: Scene | null) => (evaluation: Evaluation, size: Size, trails: Trails) => Scene
  stepEvaluation: (step: string) => Evaluation
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

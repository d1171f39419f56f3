import {
  advance,
  type Course,
  createEvaluator,
  createSceneMaker,
  type Edit,
  endGesture,
  type Evaluation,
  type Examination,
  type Finding,
  type Findings,
  formatShort,
  type History,
  type LineResult,
  movingSliders,
  record,
  redo,
  restAt,
  type Scene,
  setSlider,
  type SpanText,
  startCourse,
  startHistory,
  type StoredStudy,
  type Study,
  undo,
  valueOn,
  shownStudy,
} from '@yperkine/core'
import { createContext, useContext } from 'react'
import { createStore, useStore } from 'zustand'
import { trace } from '../parts/trace'
import type { SaveStatus } from './saving/autosave'

export interface Size {
  width: number
  heights: Readonly<Record<string, number>>
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
  /** What the worker has found out about each curve, and the curve it was asked about. */
  examined: ReadonlyMap<string, { subject: unknown; examination: Examination }>
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
  /** What the polite live region says. */
  announcement: string

  /** Applies an edit; edits of one gesture undo as one. */
  apply: (edit: Edit, gesture?: string) => void
  /** Begins a stretch of edits during which the frame stays still; while panning, only heights do. */
  hold: (what?: 'frame' | 'heights') => void
  /** Ends it, and says what came of it. */
  release: (announcement?: (evaluation: Evaluation) => string) => void
  play: () => void
  /** Stops the motion where it is; that value is the study's from now on. */
  pause: () => void
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
  setFinding: (curve: string, subject: unknown, examination: Examination | null) => void
  setStatus: (status: SaveStatus, fault: string | null) => void
  setTheirs: (theirs: StoredStudy) => void
  setGone: () => void
}

/** A lane that has no height yet has no frame to keep. */
const drawn = ({ lanes }: Scene) => lanes.filter((l) => l.height > 0)

/** Proven zeros and turning points of the curves in view. */
const worthALook = (examined: Workbench['examined']): number[] =>
  [...examined.values()].flatMap(({ examination: { zeros, turningPoints } }) =>
    [...zeros, ...turningPoints].map((f) => f.x),
  )

const noneExamined: Workbench['examined'] = new Map()

/** What was found, marked where its curve has changed since; the same finding stays the same. */
function createFindings() {
  const made = new WeakMap<Examination, { fresh: Finding; stale: Finding }>()
  let last: { parts: Finding[]; findings: Findings } | null = null
  return (evaluation: Evaluation, examined: Workbench['examined']): Findings => {
    const entries = [...examined].map(([curve, { subject, examination }]) => {
      let pair = made.get(examination)
      if (!pair) {
        pair = {
          fresh: { examination, stale: false },
          stale: { examination, stale: true },
        }
        made.set(examination, pair)
      }
      const stale = evaluation.curves.get(curve) !== subject
      return [curve, stale ? pair.stale : pair.fresh] as const
    })
    const parts = entries.map(([, finding]) => finding)
    if (last?.parts.length === parts.length && last.parts.every((p, i) => p === parts[i])) {
      return last.findings
    }
    const findings = new Map(entries)
    last = { parts, findings }
    return findings
  }
}

/**
 * A line that takes more steps than this goes to the worker, and sooner where its steps are slow:
 * in milliseconds, while something moves and else.
 */
const mostSteps = 150
const [moving, still] = [12, 60]

/** The open study with everything that follows from it: edits go in, results and scene come out. */
export function createWorkbench(id: string, study: Study) {
  const patience = () => {
    const until = performance.now() + (isHurried() ? moving : still)
    let steps = 0
    return () => steps++ < mostSteps && performance.now() < until
  }
  let isHurried = () => false
  const evaluate = createEvaluator({
    patience,
    onFault: (error, line) => trace(`${line} could not be worked out`, error),
  })
  const makeScene = createSceneMaker()

  return createStore<Workbench>()((set, get) => {
    const findingsFor = createFindings()
    isHurried = () => get()?.held != null || get()?.courses != null
    const sceneFor = (
      evaluation: Evaluation,
      size: Size,
      held: Workbench['held'],
      { hurried = false, examined = get()?.examined ?? noneExamined } = {},
    ) =>
      makeScene(
        evaluation,
        {
          ...size,
          ...(held?.x ? { heldX: held.x } : {}),
          ...(held ? { held: new Map(held.lanes.map((l) => [l.id, l.y])) } : {}),
          hurried: hurried || held !== null,
        },
        findingsFor(evaluation, examined),
      )
    /**
     * The one way a study reaches the page: what else changes with it goes along, so that
     * everything on the page follows one notification.
     */
    const show = (
      history: History,
      change: Partial<Pick<Workbench, 'held' | 'courses' | 'live' | 'announcement'>> = {},
    ) => {
      const { size, held, live } = { ...get(), ...change }
      const evaluation = evaluate(shownStudy(history.present, { live: Object.fromEntries(live) }))
      const hurried = history.gesture !== null
      set({ history, evaluation, scene: sceneFor(evaluation, size, held, { hurried }), ...change })
    }
    const size: Size = { width: 0, heights: {} }
    const evaluation = evaluate(study)
    return {
      id,
      history: startHistory(study),
      evaluation,
      scene: sceneFor(evaluation, size, null),
      size,
      held: null,
      courses: null,
      live: new Map(),
      examined: noneExamined,
      selectedPlace: null,
      selectedSpan: null,
      highlight: null,
      left: null,
      status: 'Saved',
      fault: null,
      theirs: null,
      gone: false,
      announcement: '',

      apply(edit, gesture) {
        const { history } = get()
        const next = edit(history.present)
        if (next !== history.present) show(record(history, next, gesture ?? null))
      },
      hold(what = 'frame') {
        get().pause()
        const { scene } = get()
        set({ held: { x: what === 'frame' ? scene.x : null, lanes: drawn(scene) } })
      },
      release(words) {
        show(endGesture(get().history), { held: null })
        if (words) get().announce(words(get().evaluation))
      },
      play() {
        const { evaluation, scene, courses } = get()
        const moving = movingSliders(evaluation.study)
        if (courses || moving.length === 0) return
        set({
          held: { x: scene.x, lanes: drawn(scene) },
          courses: new Map(moving.map((slider) => [slider.name, startCourse(slider)])),
        })
      },
      pause() {
        const { courses, live, history } = get()
        if (!courses) return
        const present = shownStudy(history.present, { live: Object.fromEntries(live) })
        const stopped = { courses: null, live: new Map<string, number>(), held: null }
        show({ ...history, present, gesture: null }, stopped)
        const values = present.sliders.filter((s) => courses.has(s.name))
        get().announce(values.map((s) => `${s.name} = ${formatShort(s.value, 6)}`).join(', '))
      },
      tick(seconds) {
        const { courses, history } = get()
        if (!courses) return
        const next = new Map<string, Course>()
        const live = new Map<string, number>()
        for (const slider of history.present.sliders) {
          const course = courses.get(slider.name)
          if (!course) continue
          const places = slider.motion.pauses ? worthALook(get().examined) : []
          const moved = restAt(course, advance(course, slider, seconds), slider, places)
          next.set(slider.name, moved)
          live.set(slider.name, valueOn(moved, slider))
        }
        show(history, { courses: next, live })
        if ([...next.values()].every((c) => c.ended)) get().pause()
      },
      step(by) {
        get().pause()
        const edit: Edit = (study) =>
          movingSliders(study).reduce(
            (now, s) => setSlider(s.name, s.value + by * s.step)(now),
            study,
          )
        get().apply(edit, 'step')
        const { study } = get().evaluation
        const values = movingSliders(study).map((s) => `${s.name} = ${formatShort(s.value, 6)}`)
        get().announce(values.join(', '))
      },
      undo() {
        get().pause()
        const before = get().history
        show(undo(before))
        get().announce(before.past.length > 0 ? 'Undone' : 'Nothing to undo')
      },
      redo() {
        get().pause()
        const before = get().history
        show(redo(before))
        get().announce(before.future.length > 0 ? 'Done again' : 'Nothing to do again')
      },
      resize(next) {
        const { evaluation, held } = get()
        const scene = sceneFor(evaluation, next, held)
        // A lane that opens while something moves is kept still from when it is first drawn.
        const known = new Set(held?.lanes.map((l) => l.id))
        const opened = scene.lanes.filter((l) => l.height > 0 && !known.has(l.id))
        const lanes =
          held && opened.length > 0 ? { ...held, lanes: [...held.lanes, ...opened] } : held
        set({ size: next, scene, held: lanes })
      },
      selectPlace(place) {
        const known = get().evaluation.places.some((p) => p.text === place)
        const selectedPlace = known ? place : null
        // Said at every move of a drag: what is the same tells nobody.
        if (get().selectedPlace !== selectedPlace) set({ selectedPlace })
      },
      selectSpan: (selectedSpan) => set({ selectedSpan }),
      setHighlight(highlight) {
        if (get().highlight !== highlight) set({ highlight })
      },
      leave() {
        const { frame, lanes } = get().history.present
        set({ left: { frame, lanes } })
      },
      comeBack() {
        const { left } = get()
        if (!left) return
        const frames = new Map(left.lanes.map((l) => [l.id, l.frame]))
        get().apply((study) => ({
          ...study,
          frame: left.frame,
          lanes: study.lanes.map((l) => ({ ...l, frame: frames.get(l.id) ?? null })),
        }))
        set({ left: null })
      },
      applyLong(line, pending, outcome) {
        if (!evaluate.apply(pending, outcome)) return
        show(get().history)
        const still = get().evaluation.lines.get(line)
        // Work that has no end would be asked for again and again.
        if (still?.pending) {
          const problems = [{ message: 'this could not be settled' }]
          get().settle(still, { ...still, pending: false, problems })
        }
      },
      settle(pending, settled) {
        if (evaluate.settle(pending, settled)) show(get().history)
      },
      setFinding(curve, subject, examination) {
        const { evaluation, size, held, history } = get()
        const examined = new Map(get().examined)
        if (examination) examined.set(curve, { subject, examination })
        else examined.delete(curve)
        const hurried = history.gesture !== null
        set({ examined, scene: sceneFor(evaluation, size, held, { hurried, examined }) })
      },
      // The same words twice in a row are spoken twice: the space makes them differ.
      announce: (text) =>
        set(({ announcement }) => ({ announcement: announcement === text ? `${text} ` : text })),
      setStatus: (status, fault) => set({ status, fault }),
      setTheirs: (theirs) => set({ theirs }),
      setGone: () => set({ gone: true }),
    }
  })
}

export type WorkbenchStore = ReturnType<typeof createWorkbench>
export const WorkbenchContext = createContext<WorkbenchStore | null>(null)

export function useWorkbenchStore(): WorkbenchStore {
  const store = useContext(WorkbenchContext)
  if (!store) throw new Error('this part stands outside a workbench')
  return store
}

export function useWorkbench<T>(select: (state: Workbench) => T): T {
  return useStore(useWorkbenchStore(), select)
}

export const useStudy = <T>(select: (study: Study) => T): T =>
  useWorkbench((s) => select(s.evaluation.study))

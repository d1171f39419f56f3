import {
  createEvaluator,
  createSceneMaker,
  type Edit,
  endGesture,
  type Evaluation,
  type History,
  record,
  redo,
  type Scene,
  startHistory,
  type Study,
  undo,
} from '@yperkine/core'
import { createContext, useContext } from 'react'
import { createStore, useStore } from 'zustand'
import type { SaveStatus } from './autosave'

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
  /** Frames kept still while a gesture runs. */
  held: Pick<Scene, 'x' | 'lanes'> | null
  /** The place that sentences are offered for first. */
  selectedPlace: string | null
  status: SaveStatus
  fault: string | null
  /** What the polite live region says. */
  announcement: string

  /** Applies an edit; edits of one gesture undo as one. */
  apply: (edit: Edit, gesture?: string) => void
  /** Begins a stretch of edits during which the frame stays still. */
  hold: () => void
  /** Ends it, and says what came of it. */
  release: (announcement?: (evaluation: Evaluation) => string) => void
  undo: () => void
  redo: () => void
  resize: (size: Size) => void
  selectPlace: (place: string | null) => void
  announce: (text: string) => void
  setStatus: (status: SaveStatus, fault: string | null) => void
}

/** The open study with everything that follows from it: edits go in, results and scene come out. */
export function createWorkbench(id: string, study: Study) {
  const evaluate = createEvaluator()
  const makeScene = createSceneMaker()

  return createStore<Workbench>()((set, get) => {
    const sceneFor = (evaluation: Evaluation, size: Size, held: Workbench['held']) =>
      makeScene(evaluation, {
        ...size,
        ...(held ? { heldX: held.x, held: new Map(held.lanes.map((l) => [l.id, l.y])) } : {}),
      })
    /** The one way a study reaches the page. */
    const show = (history: History) => {
      const { size, held } = get()
      const evaluation = evaluate(history.present)
      set({ history, evaluation, scene: sceneFor(evaluation, size, held) })
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
      selectedPlace: null,
      status: 'Saved',
      fault: null,
      announcement: '',

      apply(edit, gesture) {
        const { history } = get()
        const next = edit(history.present)
        if (next !== history.present) show(record(history, next, gesture ?? null))
      },
      hold() {
        const { scene } = get()
        set({ held: { x: scene.x, lanes: scene.lanes } })
      },
      release(words) {
        set({ held: null })
        show(endGesture(get().history))
        if (words) get().announce(words(get().evaluation))
      },
      undo() {
        const before = get().history
        show(undo(before))
        get().announce(before.past.length > 0 ? 'Undone' : 'Nothing to undo')
      },
      redo() {
        const before = get().history
        show(redo(before))
        get().announce(before.future.length > 0 ? 'Done again' : 'Nothing to do again')
      },
      resize(next) {
        const { evaluation, held } = get()
        set({ size: next, scene: sceneFor(evaluation, next, held) })
      },
      selectPlace(place) {
        const known = get().evaluation.places.some((p) => p.text === place)
        set({ selectedPlace: known ? place : null })
      },
      // The same words twice in a row are spoken twice: the space makes them differ.
      announce: (text) =>
        set(({ announcement }) => ({ announcement: announcement === text ? `${text} ` : text })),
      setStatus: (status, fault) => set({ status, fault }),
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
  useWorkbench((s) => select(s.history.present))

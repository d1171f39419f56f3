import type { Drawing } from './drawing'
import type { GetWorkbench, SetWorkbench, Workbench } from './state'

/** What is looked at: the size of the screen, what is chosen, the frame someone went away from. */
export function attention(
  set: SetWorkbench,
  get: GetWorkbench,
  { sceneFor }: Drawing,
): Pick<
  Workbench,
  | 'resize'
  | 'selectPlace'
  | 'selectSpan'
  | 'setHighlight'
  | 'leave'
  | 'comeBack'
  | 'setRequest'
  | 'announce'
> {
  return {
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
      const { frame, lanes } = get().shown
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
    setRequest: (request) => set({ request }),
    // The same words twice in a row are spoken twice: the space makes them differ.
    announce: (text) =>
      set(({ announcement }) => ({ announcement: announcement === text ? `${text} ` : text })),
  }
}

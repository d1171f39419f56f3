import type { LaneScene, Scene } from '@yperkine/core'
import { useEffectEvent, useLayoutEffect } from 'react'
import { useWorkbenchStore, type Workbench } from '../store'

/** What is drawn over the scene besides. */
const answersOf = ({ evaluation }: Workbench) => evaluation.study.answers

/**
 * Calls back with the scene now and with each later one, outside React: what moves at every frame
 * is written through refs, so that a drag costs no rendering of components.
 */
export function usePainting(paint: (scene: Scene) => void) {
  const store = useWorkbenchStore()
  const onScene = useEffectEvent(paint)
  // Whatever is rendered anew is painted anew.
  useLayoutEffect(() => onScene(store.getState().scene))
  useLayoutEffect(() => {
    let last = store.getState()
    return store.subscribe((now) => {
      const same =
        now.scene === last.scene &&
        now.highlight === last.highlight &&
        answersOf(now) === answersOf(last)
      if (same) return
      last = now
      onScene(now.scene)
    })
  }, [store])
}

/** The same for one lane, when its picture has changed. */
export function useLanePainting(id: string, paint: (lane: LaneScene) => void) {
  usePainting((scene) => {
    const lane = scene.lanes.find((l) => l.id === id)
    if (lane) paint(lane)
  })
}

/** While something moves, handles follow their points at this pace, in milliseconds. */
const restless = 600

/**
 * The same for what is taken hold of and not seen: it follows at once while all is still, and at
 * leisure while something moves, when nobody can take hold of it.
 */
export function useHandlePainting(paint: (scene: Scene) => void) {
  const store = useWorkbenchStore()
  const onScene = useEffectEvent(paint)
  useLayoutEffect(() => onScene(store.getState().scene))
  useLayoutEffect(() => {
    let painted: Scene | null = store.getState().scene
    let waiting: ReturnType<typeof setTimeout> | undefined
    const paintNow = () => {
      clearTimeout(waiting)
      waiting = undefined
      painted = store.getState().scene
      onScene(painted)
    }
    const stop = store.subscribe(({ scene, held, courses, glide, history }) => {
      if (scene === painted) return
      const { gesture } = history
      // A key that is held down has the focus on what it moves, and that is seen.
      const gestures = gesture !== null && !gesture.startsWith('key.')
      const moves = held !== null || courses !== null || glide !== null || gestures
      if (!moves) paintNow()
      else waiting ??= setTimeout(paintNow, restless)
    })
    return () => {
      stop()
      clearTimeout(waiting)
    }
  }, [store])
}

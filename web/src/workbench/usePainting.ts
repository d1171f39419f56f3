import type { LaneScene, Scene } from '@yperkine/core'
import { useEffectEvent, useLayoutEffect } from 'react'
import { useWorkbenchStore } from './store'

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
        now.scene === last.scene && now.highlight === last.highlight && now.guesses === last.guesses
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

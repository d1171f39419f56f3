import { useEffect } from 'react'
import type { WorkbenchStore } from '../store'
import { useWorkbench } from '../store'

/** A pause of the page itself, such as a hidden tab, must not become one long leap. */
const longestTick = 0.1

/** Drives the motion by the display's own frames. */
export function usePlayer(store: WorkbenchStore) {
  const playing = useWorkbench((s) => s.courses !== null || s.walk !== null || s.glide !== null)
  useEffect(() => {
    if (!playing) return
    let last: number | null = null
    let request = requestAnimationFrame(function frame(now) {
      if (last !== null) store.getState().tick(Math.min(longestTick, (now - last) / 1000))
      last = now
      request = requestAnimationFrame(frame)
    })
    return () => cancelAnimationFrame(request)
  }, [playing, store])
}

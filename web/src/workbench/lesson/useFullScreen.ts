import { useCallback, useEffect, useEffectEvent, useRef } from 'react'

/**
 * The whole screen while something is presented; `onLeft` is called when a person leaves it. A browser
 * leaves it by itself when a window is opened: that is excused beforehand, and the next key or press in
 * this window takes the screen again.
 */
export function useFullScreen(onLeft: () => void): (isExcused: boolean) => void {
  const left = useEffectEvent(onLeft)
  const excused = useRef(false)
  useEffect(() => {
    let was = document.fullscreenElement !== null
    let isLost = false
    // Refused, it is presented in the window as it is.
    const take = () => void document.documentElement.requestFullscreen?.().catch(() => undefined)
    const onChange = () => {
      const is = document.fullscreenElement !== null
      isLost = was && !is && excused.current
      if (was && !is && !isLost) left()
      was = is
    }
    const onGesture = (event: Event) => {
      const isEscape = event instanceof KeyboardEvent && event.key === 'Escape'
      if (isLost && !isEscape) take()
      isLost = false
    }
    // Who is back in this window and leaves the screen then means it.
    const onBack = () => (excused.current = false)
    document.addEventListener('fullscreenchange', onChange)
    window.addEventListener('keydown', onGesture, true)
    window.addEventListener('pointerdown', onGesture, true)
    window.addEventListener('focus', onBack)
    if (!was) take()
    return () => {
      document.removeEventListener('fullscreenchange', onChange)
      window.removeEventListener('keydown', onGesture, true)
      window.removeEventListener('pointerdown', onGesture, true)
      window.removeEventListener('focus', onBack)
      if (document.fullscreenElement) void document.exitFullscreen()
    }
  }, [])
  return useCallback((isExcused) => {
    excused.current = isExcused
  }, [])
}

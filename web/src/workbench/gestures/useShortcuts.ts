import { fitOrWhole } from '@yperkine/core'
import { useEffect } from 'react'
import type { WorkbenchStore } from '../store'

const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Keys that work anywhere on the workbench outside fields. */
export function useShortcuts(store: WorkbenchStore, onHelp: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isField(event.target) || event.altKey) return
      const { undo, redo, apply } = store.getState()
      const key = event.key.toLowerCase()
      if (event.ctrlKey || event.metaKey) {
        if (key !== 'z' && key !== 'y') return
        event.preventDefault()
        if (key === 'y' || event.shiftKey) redo()
        else undo()
        return
      }
      const { evaluation, play, pause, step, courses, view } = store.getState()
      if (!evaluation.study.display.keys) return
      // A control that has the focus keeps its own keys; Space presses it.
      const onControl = event.target instanceof HTMLElement && event.target !== document.body
      const acts: Record<string, () => void> = {
        '0': () => apply(fitOrWhole(store.getState().evaluation)),
        ',': () => step(-1),
        '.': () => step(1),
        c: () => store.getState().clearTrails(),
        '[': () => store.getState().goOn(-1),
        ']': () => store.getState().goOn(1),
        ...(view === 'bench'
          ? {
              '/': () => document.getElementById('say-what-to-add')?.focus(),
              '?': onHelp,
              p: () => store.getState().present(),
            }
          : {}),
        ...(onControl ? {} : { ' ': courses ? pause : play }),
      }
      const act = acts[key]
      if (!act) return
      event.preventDefault()
      act()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [store, onHelp])
}

import { fitFrame } from '@yperkine/core'
import { useEffect } from 'react'
import type { WorkbenchStore } from './store'

const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Keys that work anywhere on the workbench outside fields. */
export function useShortcuts(store: WorkbenchStore) {
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
      if (key === '/') {
        event.preventDefault()
        document.getElementById('say-what-to-add')?.focus()
      } else if (key === '0') {
        apply(fitFrame)
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [store])
}

import { Redo2, Undo2 } from 'lucide-react'
import { useRef } from 'react'
import { useWorkbench, useWorkbenchStore } from './store'

/** The ways back and forward through what was done. */
export function UndoRedo({ className }: { className: string }) {
  const store = useWorkbenchStore()
  const [undoing, redoing] = [useRef<HTMLButtonElement>(null), useRef<HTMLButtonElement>(null)]
  /** A button that has nothing left to do loses the focus, and its neighbour has it then. */
  const pressed = (own: HTMLButtonElement | null, other: HTMLButtonElement | null) =>
    requestAnimationFrame(() => {
      if (own?.disabled) other?.focus()
    })
  const canUndo = useWorkbench((s) => s.history.past.length > 0)
  const canRedo = useWorkbench((s) => s.history.future.length > 0)

  return (
    <div className={className}>
      <button
        type="button"
        aria-label="Undo"
        title="Undo (Ctrl+Z)"
        className="button px-2"
        disabled={!canUndo}
        ref={undoing}
        onClick={() => {
          store.getState().undo()
          pressed(undoing.current, redoing.current)
        }}
      >
        <Undo2 size={18} aria-hidden />
      </button>
      <button
        type="button"
        aria-label="Redo"
        title="Redo (Ctrl+Shift+Z)"
        className="button px-2"
        disabled={!canRedo}
        ref={redoing}
        onClick={() => {
          store.getState().redo()
          pressed(redoing.current, undoing.current)
        }}
      >
        <Redo2 size={18} aria-hidden />
      </button>
    </div>
  )
}

import { changeStudy } from '@yperkine/core'
import { CircleHelp, Pencil, Redo2, Settings2, Undo2 } from 'lucide-react'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { EditableText } from '../parts/EditableText'
import { Mark } from '../parts/Mark'
import { StudySettings } from './settings/StudySettings'
import { useStudy, useWorkbench, useWorkbenchStore } from './store'

/** Where we are, how it is kept, and the ways back and forward. */
export function TopBar({ onHelp }: { onHelp: () => void }) {
  const store = useWorkbenchStore()
  const title = useStudy((s) => s.title)
  const [renaming, setRenaming] = useState(false)
  const pencil = useRef<HTMLButtonElement>(null)
  const [undoing, redoing] = [useRef<HTMLButtonElement>(null), useRef<HTMLButtonElement>(null)]
  /** A button that has nothing left to do loses the focus, and its neighbour has it then. */
  const pressed = (own: HTMLButtonElement | null, other: HTMLButtonElement | null) =>
    requestAnimationFrame(() => {
      if (own?.disabled) other?.focus()
    })
  const [settings, setSettings] = useState(false)
  const canUndo = useWorkbench((s) => s.history.past.length > 0)
  const canRedo = useWorkbench((s) => s.history.future.length > 0)

  return (
    <header className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule px-4 max-sm:gap-1.5 max-sm:px-2">
      <Link
        to="/"
        className="flex items-center gap-3 rounded-md"
        aria-label="Yperkine, to the studies"
      >
        <Mark />
        <span className="font-serif text-[calc(17px*var(--type))] font-semibold max-sm:hidden">
          Yperkine
        </span>
        <span className="text-quiet max-sm:hidden">Studies /</span>
      </Link>
      {renaming ? (
        <EditableText
          label="Title"
          value={title}
          className="w-80 font-serif font-semibold"
          check={(text) => (text.trim() === '' ? 'a study needs a title' : null)}
          onCommit={(text) =>
            store.getState().apply(changeStudy({ title: text.trim().slice(0, 200) }))
          }
          onClose={() => {
            setRenaming(false)
            requestAnimationFrame(() => pencil.current?.focus())
          }}
        />
      ) : (
        <h1 className="flex min-w-0 items-center gap-1">
          <span className="truncate font-serif text-[calc(17px*var(--type))] font-semibold">
            {title}
          </span>
          <button
            type="button"
            aria-label="Rename"
            title="Rename"
            className="grid size-8 shrink-0 place-items-center rounded-md text-quiet hover:text-ink"
            ref={pencil}
            onClick={() => setRenaming(true)}
          >
            <Pencil size={14} aria-hidden />
          </button>
        </h1>
      )}
      <SaveState />
      <div className="ml-auto flex gap-2 max-sm:gap-1">
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
        <button
          type="button"
          className="button max-sm:px-2"
          title="How it works (?)"
          onClick={onHelp}
        >
          <CircleHelp size={16} aria-hidden />
          <span className="max-sm:sr-only">How it works</span>
        </button>
        <button
          type="button"
          className="button max-sm:px-2"
          title="Study settings"
          onClick={() => setSettings(true)}
        >
          <Settings2 size={16} aria-hidden />
          <span className="max-sm:sr-only">Study settings</span>
        </button>
      </div>
      <StudySettings open={settings} onClose={() => setSettings(false)} />
    </header>
  )
}

function SaveState() {
  const status = useWorkbench((s) => s.status)
  const fault = useWorkbench((s) => s.fault)
  return (
    <span className="flex items-baseline gap-2 whitespace-nowrap">
      {/* Told at once only where something is amiss: every edit is saved, and nobody waits for it. */}
      <span
        role="status"
        aria-live={status === 'Not saved' ? 'polite' : 'off'}
        className={status === 'Not saved' && fault ? 'text-brick' : 'text-quiet'}
      >
        {status}
      </span>
      {fault && <span className="text-[calc(13px*var(--type))] text-quiet">{fault}</span>}
    </span>
  )
}

import { changeDisplay, changeStudy } from '@yperkine/core'
import { CircleHelp, Moon, Pencil, Settings2, Sun } from 'lucide-react'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { HandOn } from '../handOn/HandOn'
import { EditableText } from '../parts/EditableText'
import { Mark } from '../parts/Mark'
import { PresentButton } from './lesson/PresentButton'
import { StudySettings } from './settings/StudySettings'
import { UndoRedo } from './UndoRedo'
import { useStudy, useWorkbench, useWorkbenchStore } from './store'

/** Where we are, how it is kept, and the ways back and forward. */
export function TopBar({ onHelp }: { onHelp: () => void }) {
  const store = useWorkbenchStore()
  const title = useStudy((s) => s.title)
  const isDark = useStudy((s) => s.display.look !== 'paper')
  const hasSteps = useStudy((s) => s.steps.length > 0)
  const { keepStep } = store.getState()
  const [renaming, setRenaming] = useState(false)
  const pencil = useRef<HTMLButtonElement>(null)
  const [settings, setSettings] = useState(false)

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
        <span className="whitespace-nowrap text-quiet max-sm:hidden">Studies /</span>
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
        <h1 className="relative flex min-w-0 items-center gap-1">
          <span className="truncate font-serif text-[calc(17px*var(--type))] font-semibold">
            {title}
          </span>
          <button
            type="button"
            aria-label="Rename"
            title="Rename"
            className="grid size-8 shrink-0 place-items-center rounded-md text-quiet hover:text-ink max-sm:absolute max-sm:-inset-y-2 max-sm:inset-x-0 max-sm:size-auto"
            ref={pencil}
            onClick={() => setRenaming(true)}
          >
            {/* On a phone the title itself is pressed. */}
            <Pencil size={14} aria-hidden className="max-sm:hidden" />
          </button>
        </h1>
      )}
      <SaveState />
      <div className="ml-auto flex gap-2 max-sm:gap-1">
        <UndoRedo className="flex gap-2 max-sm:hidden" />
        <button
          type="button"
          aria-label={isDark ? 'Light look' : 'Dark look'}
          title={isDark ? 'Light look' : 'Dark look'}
          className="button px-2"
          onClick={() =>
            store.getState().apply(changeDisplay({ look: isDark ? 'paper' : 'night' }))
          }
        >
          {isDark ? <Sun size={18} aria-hidden /> : <Moon size={18} aria-hidden />}
        </button>
        {!hasSteps && (
          <button
            type="button"
            className="button whitespace-nowrap max-lg:hidden"
            onClick={keepStep}
          >
            Keep as step
          </button>
        )}
        <div className="flex gap-2 max-sm:hidden">
          <PresentButton />
          <HandOn />
        </div>
        <button
          type="button"
          className="button max-sm:px-2"
          title="How it works (?)"
          onClick={onHelp}
        >
          <CircleHelp size={16} aria-hidden />
          <span className="max-2xl:sr-only">How it works</span>
        </button>
        <button
          type="button"
          className="button max-sm:px-2"
          title="Study settings"
          onClick={() => setSettings(true)}
        >
          <Settings2 size={16} aria-hidden />
          <span className="whitespace-nowrap max-xl:sr-only">Study settings</span>
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

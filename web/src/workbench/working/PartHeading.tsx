import { changePart, type Part, removePart } from '@yperkine/core'
import type { useSortable } from '@dnd-kit/sortable'
import { ChevronDown, ChevronRight, PanelBottom, X } from 'lucide-react'
import { useState } from 'react'
import { EditableText } from '../../parts/EditableText'
import { Switch } from '../../parts/Switch'
import { useWorkbench, useWorkbenchStore } from '../store'

interface Props {
  part: Part
  /** How many lines are under it. */
  count: number
  sortable: ReturnType<typeof useSortable>
}

/** The heading of a part: its letter, by which it is dragged, its title, its fold and its switch. */
export function PartHeading({ part, count, sortable: { attributes, listeners } }: Props) {
  const { id, letter, title, on, folded, onDeck } = part
  const { apply, announce } = useWorkbenchStore().getState()
  const [renaming, setRenaming] = useState(false)
  const [removing, setRemoving] = useState(false)
  const remove = (lines: 'stay' | 'go') => {
    apply(removePart(id, lines))
    announce(`Part ${letter} removed`)
    document.getElementById('say-what-to-add')?.focus()
  }
  return (
    <>
      <div className="flex min-h-11 items-center gap-1.5 pr-3 pl-[10px]">
        <button
          type="button"
          {...attributes}
          {...listeners}
          data-handle
          aria-label={`Move part ${letter}`}
          title="Drag to move this part"
          className="grid size-[22px] shrink-0 cursor-grab touch-none place-items-center rounded-[4px] border-[1.5px] border-ink bg-page text-[calc(14px*var(--type))] font-semibold active:cursor-grabbing pointer-coarse:size-11"
        >
          {letter}
        </button>
        <button
          type="button"
          aria-expanded={!folded}
          aria-label={`${folded ? 'Unfold' : 'Fold'} part ${letter}`}
          title={folded ? 'Show its lines here' : 'Put its lines out of the way here'}
          className="line-tool is-kept"
          onClick={() => apply(changePart(id, { folded: !folded }))}
        >
          {folded ? <ChevronRight size={16} aria-hidden /> : <ChevronDown size={16} aria-hidden />}
        </button>
        <h3 className="min-w-0 flex-1 font-serif text-[calc(17px*var(--type))] font-semibold">
          {renaming ? (
            <EditableText
              label={`Title of part ${letter}`}
              value={title}
              className="w-full"
              check={(text) =>
                text.trim().length > 120 ? 'a title has at most 120 letters' : null
              }
              onCommit={(text) => apply(changePart(id, { title: text.trim() }))}
              onClose={() => setRenaming(false)}
            />
          ) : (
            <button
              type="button"
              aria-label={`${title || `Part ${letter}`}, rename`}
              title="Rename this part"
              className="slot max-w-full truncate border-transparent"
              onClick={() => setRenaming(true)}
            >
              {title || <span className="text-quiet">Part {letter}</span>}
            </button>
          )}
        </h3>
        {folded && (
          <span className="text-quiet">
            {count} {count === 1 ? 'line' : 'lines'}
          </span>
        )}
        <button
          type="button"
          aria-label={`Switch of part ${letter} on the deck`}
          aria-pressed={onDeck}
          title={onDeck ? 'Take its switch off the deck' : 'Put its switch on the deck as well'}
          className={`line-tool ${onDeck ? 'is-kept' : ''}`}
          onClick={() => apply(changePart(id, { onDeck: !onDeck }))}
        >
          <PanelBottom size={15} aria-hidden />
        </button>
        <button
          type="button"
          aria-label={`Remove part ${letter}`}
          title="Remove this part"
          className="line-tool"
          onClick={() => (count === 0 ? remove('stay') : setRemoving(true))}
        >
          <X size={15} aria-hidden />
        </button>
        <PartSwitch id={id} label={`Part ${letter}`} on={on} />
      </div>
      {removing && (
        <div
          role="group"
          aria-label={`Remove part ${letter}`}
          className="flex flex-wrap items-center gap-2 px-4 pb-2"
        >
          <span>
            Part {letter} has {count} {count === 1 ? 'line' : 'lines'}.
          </span>
          <button type="button" className="button" autoFocus onClick={() => remove('stay')}>
            Keep {count === 1 ? 'it' : 'them'}
          </button>
          <button type="button" className="button" onClick={() => remove('go')}>
            Remove {count === 1 ? 'it' : 'them'} too
          </button>
          <button type="button" className="button button-quiet" onClick={() => setRemoving(false)}>
            Cancel
          </button>
        </div>
      )}
    </>
  )
}

/** Switches a part on and off; what that does to the picture is said. */
export function PartSwitch({ id, label, on }: { id: string; label: string; on: boolean }) {
  const { apply, announce } = useWorkbenchStore().getState()
  const count = useWorkbench((s) => s.evaluation.study.lines.filter((l) => l.part === id).length)
  return (
    <Switch
      label={label}
      on={on}
      onChange={(next) => {
        apply(changePart(id, { on: next }))
        const lines = `${count} ${count === 1 ? 'line' : 'lines'}`
        announce(next ? `${label} on: ${lines}` : `${label} off: ${lines} not shown`)
      }}
    />
  )
}

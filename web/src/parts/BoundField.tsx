import { formatShort, readNumber } from '@yperkine/core'
import { useState } from 'react'
import { useWorkbenchStore } from '../workbench/store'

interface Props {
  label: string
  value: number
  /** How far the arrow keys go. */
  step: number
  decimals: number
  className?: string
  onEnter: (value: number) => void
}

/** A bound of the frame or of a slider: takes any expression, such as 2π; arrow keys step. */
export function BoundField({ label, value, step, decimals, className = '', onEnter }: Props) {
  const store = useWorkbenchStore()
  const [draft, setDraft] = useState<string | null>(null)
  // Sliders are looked at while someone types, and not at each of their moves.
  const { sliders } = store.getState().shown
  const read = draft === null ? null : readNumber(draft.replaceAll('−', '-'), sliders)
  const problem = read && !read.ok ? read.message : null
  const commit = () => {
    if (read?.ok) onEnter(read.value)
    if (!problem) setDraft(null)
  }
  return (
    <span className="relative inline-block">
      <input
        role="spinbutton"
        inputMode="text"
        aria-label={label}
        aria-valuenow={value}
        aria-valuetext={formatShort(value, decimals)}
        aria-invalid={problem !== null}
        className={`field ${className}`}
        value={draft ?? formatShort(value, decimals)}
        spellCheck={false}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit()
          else if (e.key === 'Escape') setDraft(null)
          else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
            e.preventDefault()
            setDraft(null)
            onEnter(value + (e.key === 'ArrowUp' ? step : -step))
          }
        }}
      />
      {problem && (
        <span
          role="alert"
          className="popover absolute bottom-full left-0 z-30 mb-1 w-56 px-2 py-1 text-[calc(13px*var(--type))] text-brick"
        >
          {problem}
        </span>
      )}
    </span>
  )
}

import { useState } from 'react'

interface Props {
  label: string
  value: string
  className?: string
  /** Returns what is wrong with a text, or null where it will do. */
  check?: (text: string) => string | null
  onCommit: (text: string) => void
  onClose: () => void
}

/** A small field that takes over in place: Enter or leaving commits, Escape gives up. */
export function EditableText({ label, value, className = '', check, onCommit, onClose }: Props) {
  const [text, setText] = useState(value)
  const [problem, setProblem] = useState<string | null>(null)
  const commit = () => {
    const fault = check?.(text) ?? null
    if (fault) {
      setProblem(fault)
      return
    }
    if (text !== value) onCommit(text)
    onClose()
  }
  return (
    <span className="relative inline-block">
      <input
        className={`field ${className}`}
        aria-label={label}
        aria-invalid={problem !== null}
        value={text}
        autoFocus
        spellCheck={false}
        onFocus={(e) => e.target.select()}
        onChange={(e) => {
          setText(e.target.value)
          setProblem(null)
        }}
        onBlur={() => (problem ? onClose() : commit())}
        onKeyDown={(e) => {
          if (e.key === 'Enter') {
            e.preventDefault()
            commit()
          } else if (e.key === 'Escape') {
            e.stopPropagation()
            onClose()
          }
        }}
      />
      {problem && (
        <span
          role="alert"
          className="popover absolute top-full left-0 z-20 mt-1 w-64 px-2 py-1 text-[calc(13px*var(--type))] text-brick"
        >
          {problem}
        </span>
      )}
    </span>
  )
}

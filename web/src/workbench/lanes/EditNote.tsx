import { changeLine, wordsOf } from '@yperkine/core'
import { useRef, useState } from 'react'
import { useStudy, useWorkbenchStore } from '../store'

interface Props {
  line: string
  at: { x: number; y: number; width: number } | undefined
  onClose: () => void
}

/** The words of a note as they are typed, where the note stands. */
export function EditNote({ line, at, onClose }: Props) {
  const { apply } = useWorkbenchStore().getState()
  const before = useStudy((s) => {
    const found = s.lines.find((l) => l.id === line)
    return (found && wordsOf(found)?.text) ?? ''
  })
  const [text, setText] = useState(before)
  const done = useRef(false)
  const close = (put: boolean) => {
    if (done.current) return
    done.current = true
    if (put && text.trim() !== '' && text !== before) apply(changeLine(line, { text }))
    onClose()
  }
  return (
    <textarea
      aria-label="Words of the note"
      autoFocus
      rows={Math.max(2, text.split('\n').length)}
      maxLength={4000}
      className="field absolute z-20 font-serif"
      style={{ left: at?.x ?? 0, top: at?.y ?? 0, width: Math.max(240, at?.width ?? 0) }}
      value={text}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => close(true)}
      onKeyDown={(event) => {
        event.stopPropagation()
        // A note may have several lines: Shift+Enter begins a new one.
        if (event.key === 'Enter' && !event.shiftKey) {
          event.preventDefault()
          close(true)
        } else if (event.key === 'Escape') close(false)
      }}
    />
  )
}

import type { PieceRow } from '@yperkine/core'
import { X } from 'lucide-react'

interface Props {
  rows: readonly PieceRow[]
  /** The row that cannot be read, or null. */
  wrong: number | null
  onChange: (rows: PieceRow[]) => void
  onEnter: () => void
  onEscape: () => void
  /** Puts the rows back into one field. */
  onJoin: () => void
}

/** A formula in pieces: a row for each, what holds and when. */
export function PieceRows({ rows, wrong, onChange, onEnter, onEscape, onJoin }: Props) {
  const put = (at: number, change: Partial<PieceRow>) =>
    onChange(rows.map((row, i) => (i === at ? { ...row, ...change } : row)))
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key === 'Enter' && event.target instanceof HTMLInputElement) onEnter()
    if (event.key === 'Escape') onEscape()
  }
  return (
    <span
      role="group"
      aria-label="Pieces"
      className="grid grid-cols-[minmax(0,1fr)] gap-1.5 py-1"
      onKeyDown={onKeyDown}
    >
      {rows.map(({ body, when }, i) => (
        <span key={i} className="flex items-center gap-1.5">
          <span aria-hidden className="h-9 border-l-2 border-edge" />
          <input
            aria-label={`Formula of piece ${i + 1}`}
            aria-invalid={wrong === i}
            className="field w-0 min-w-0 flex-[3]"
            autoFocus={i === 0}
            spellCheck={false}
            value={body}
            placeholder="formula"
            onChange={(event) => put(i, { body: event.target.value })}
          />
          <span className="font-sans text-quiet">if</span>
          <input
            aria-label={`Condition of piece ${i + 1}`}
            aria-invalid={wrong === i}
            className="field w-0 min-w-0 flex-[2]"
            spellCheck={false}
            value={when}
            placeholder="otherwise"
            onChange={(event) => put(i, { when: event.target.value })}
          />
          <button
            type="button"
            aria-label={`Remove piece ${i + 1}`}
            disabled={rows.length === 1}
            className="grid size-7 place-items-center rounded-md text-quiet hover:text-ink disabled:opacity-30"
            onClick={() => onChange(rows.filter((_, k) => k !== i))}
          >
            <X size={16} aria-hidden />
          </button>
        </span>
      ))}
      <span className="flex flex-wrap gap-2 font-sans">
        <button
          type="button"
          className="pill"
          onClick={() => onChange([...rows, { body: '', when: '' }])}
        >
          Add a piece
        </button>
        <button type="button" className="pill" onClick={onJoin}>
          As one formula
        </button>
        <button type="button" className="pill" onClick={onEnter}>
          Use it
        </button>
      </span>
    </span>
  )
}

import type { ReactNode } from 'react'

export const fieldHint = 'type a function, and start from its graph…'

interface Props {
  /** What stands before what is typed: "Let f(x) =", "Let", or nothing. */
  before: 'name' | 'let' | 'none'
  canOpen: boolean
  onOpen: () => void
  children: ReactNode
}

/** What stands around the field in which a study begins. */
export function FieldFrame({ before, canOpen, onOpen, children }: Props) {
  return (
    <div className="flex min-h-[58px] items-center gap-3 rounded-[10px] border border-rule bg-page px-5 font-serif text-[calc(19px*var(--type))] focus-within:border-edge">
      {before !== 'none' && <span>Let</span>}
      {before === 'name' && (
        <span className="flex gap-3">
          <i>f(x)</i>
          <span>=</span>
        </span>
      )}
      {children}
      <button
        type="button"
        className="button font-sans text-[calc(15px*var(--type))]"
        disabled={!canOpen}
        onClick={onOpen}
      >
        Open
      </button>
    </div>
  )
}

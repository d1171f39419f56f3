import { useDroppable } from '@dnd-kit/core'
import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import type { Part } from '@yperkine/core'
import type { ReactNode } from 'react'
import { PartHeading } from './PartHeading'

interface Props {
  part: Part
  /** How many lines are under it. */
  count: number
  children: ReactNode
}

/** A part in the working: its heading, its lines, and where a line put behind it leaves it. */
export function PartItem({ part, count, children }: Props) {
  const sortable = useSortable({ id: `part:${part.id}` })
  const foot = useDroppable({ id: `end:${part.id}` })
  const { letter, title, on, folded } = part
  return (
    <li
      ref={sortable.setNodeRef}
      aria-label={title ? `Part ${letter}: ${title}` : `Part ${letter}`}
      style={{
        transform: CSS.Translate.toString(sortable.transform),
        transition: sortable.transition,
      }}
      className={`group relative border-b border-rule [contain:layout] ${sortable.isDragging ? 'z-20 bg-chosen' : 'bg-paper'}`}
    >
      <PartHeading part={part} count={count} sortable={sortable} />
      {!folded && count > 0 && (
        <ol className={`ml-3 border-l-2 bg-page ${on ? 'border-kelp' : 'border-rule'}`}>
          {children}
        </ol>
      )}
      {!folded && count === 0 && (
        <p className="px-4 pb-2 text-quiet">
          No line is under it yet: say one below, or drag one here.
        </p>
      )}
      <div ref={foot.setNodeRef} className={`h-2 ${foot.isOver ? 'bg-chosen' : ''}`} />
    </li>
  )
}

import type { useSortable } from '@dnd-kit/sortable'

interface Props {
  number: number
  sortable: ReturnType<typeof useSortable>
}

/** The number of a line, by which it is dragged; with keys: Space, arrows, Space. */
export const LineHandle = ({ number, sortable: { attributes, listeners } }: Props) => (
  <button
    type="button"
    {...attributes}
    {...listeners}
    data-handle
    aria-label={`Move line ${number}`}
    title="Drag to move this line"
    className="-ml-2 flex w-6 shrink-0 cursor-grab touch-none items-start justify-center rounded-sm pt-0.5 font-serif text-[calc(13px*var(--type))] text-quiet italic active:cursor-grabbing pointer-coarse:-ml-3 pointer-coarse:w-9"
  >
    {number}
  </button>
)

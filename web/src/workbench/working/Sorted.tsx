import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  type UniqueIdentifier,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { moveLine } from '@yperkine/core'
import type { ReactNode } from 'react'
import { useWorkbenchStore } from '../store'

/** A press that moves less than this is no drag, in pixels. */
const still = 4

const screenReaderInstructions = {
  draggable: 'Space takes hold of this line, the arrow keys move it, Space puts it down.',
}

/** What is heard while a line is moved: numbers of lines, as they are seen. */
function spoken(ids: readonly string[]): Announcements {
  const number = (id: UniqueIdentifier) => ids.indexOf(String(id)) + 1
  return {
    onDragStart: ({ active }) => `Line ${number(active.id)} is held`,
    onDragOver: ({ over }) => (over ? `At line ${number(over.id)}` : undefined),
    // The page itself says where the line has come to.
    onDragEnd: () => undefined,
    onDragCancel: ({ active }) => `Line ${number(active.id)} stays where it was`,
  }
}

/** Lines that can be put into another order, by dragging their numbers or with keys. */
export function Sorted({ ids, children }: { ids: string[]; children: ReactNode }) {
  const store = useWorkbenchStore()
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: still } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || over.id === active.id) return
    const { apply, announce } = store.getState()
    const to = ids.indexOf(String(over.id))
    apply(moveLine(String(active.id), to))
    announce(`Now line ${to + 1}`)
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements: spoken(ids), screenReaderInstructions }}
      onDragEnd={end}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

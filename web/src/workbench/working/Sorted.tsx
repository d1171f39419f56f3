import {
  type Announcements,
  closestCenter,
  type CollisionDetection,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  type UniqueIdentifier,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { moveRow, rowsOf, type Study } from '@yperkine/core'
import type { ReactNode } from 'react'
import { useWorkbenchStore } from '../store'

/** A press that moves less than this is no drag, in pixels. */
const still = 4

/** What is dragged goes where the pointer is: to the line under it, before the part that holds it. */
const underPointer: CollisionDetection = (dragged) => {
  const under = pointerWithin(dragged)
  const inner = under.filter(({ id }) => !String(id).startsWith('part:'))
  return inner.length > 0 ? inner : under.length > 0 ? under : closestCenter(dragged)
}

const screenReaderInstructions = {
  draggable: 'Space takes hold of this line, the arrow keys move it, Space puts it down.',
}

/** What is heard while a line or part is moved: numbers and letters, as they are seen. */
function spoken(names: ReadonlyMap<string, string>): Announcements {
  const named = (id: UniqueIdentifier) => names.get(String(id)) ?? ''
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
  return {
    onDragStart: ({ active }) => `${capital(named(active.id))} is held`,
    onDragOver: ({ over }) => (over ? `At ${named(over.id)}` : undefined),
    // The page itself says where the line has come to.
    onDragEnd: () => undefined,
    onDragCancel: ({ active }) => `${capital(named(active.id))} stays where it was`,
  }
}

interface Props {
  /** The keys of what can be moved. */
  ids: string[]
  /** What every row is called, those where parts end among them. */
  names: ReadonlyMap<string, string>
  children: ReactNode
}

/** Lines and parts that can be put into another order, by dragging their numbers or with keys. */
export function Sorted({ ids, names, children }: Props) {
  const store = useWorkbenchStore()
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: still } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || over.id === active.id) return
    const { apply, announce } = store.getState()
    apply(moveRow(String(active.id), String(over.id)))
    announce(whereNow(store.getState().shown, String(active.id)))
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={underPointer}
      accessibility={{ announcements: spoken(names), screenReaderInstructions }}
      onDragEnd={end}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

/** Where a row has come to. */
function whereNow(study: Study, key: string): string {
  const rows = rowsOf(study)
  const row = rows.find((one) => one.key === key)
  if (row?.kind !== 'line') {
    const parts = rows.filter(({ kind }) => kind === 'part').map((one) => one.key)
    return `Now ${parts.indexOf(key) + 1} of ${parts.length} parts`
  }
  const number = study.lines.findIndex((line) => line.id === key) + 1
  return row.part ? `Now line ${number}, in part ${row.part.letter}` : `Now line ${number}`
}

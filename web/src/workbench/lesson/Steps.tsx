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
  rectSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { moveStep } from '@yperkine/core'
import { useMemo } from 'react'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { AboutStep, Gone } from './AboutStep'
import { useGone, useStepIds, useStepTitles } from './useLesson'
import { Ways } from './Ways'

/** A press that moves less than this is no drag, in pixels. */
const still = 4

/** The steps of the lesson in their order, over the deck. */
export function Steps() {
  const store = useWorkbenchStore()
  const ids = useStepIds()
  const names = useStepTitles()
  const open = useWorkbench((s) => s.history.step)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: still } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const titles = useMemo(() => new Map(ids.map((id, i) => [id, names[i]!])), [ids, names])
  const announcements = useMemo(() => spoken(titles), [titles])
  if (ids.length === 0) return null
  const { apply, announce, keepStep } = store.getState()
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || over.id === active.id) return
    apply(moveStep(String(active.id), String(over.id)))
    const now = store.getState().shown.steps.findIndex((s) => s.id === active.id) + 1
    announce(`Now step ${now} of ${ids.length}`)
  }
  return (
    <section
      aria-label="Lesson"
      className="flex shrink-0 flex-wrap items-start gap-2 border-t border-rule bg-paper px-4 py-1.5 max-sm:px-2"
    >
      <h2 className="flex h-9 items-center text-quiet max-sm:sr-only">Steps</h2>
      <div className="min-w-0 flex-1 max-sm:w-full max-sm:flex-none">
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          accessibility={{ announcements, screenReaderInstructions }}
          onDragEnd={end}
        >
          <SortableContext items={ids} strategy={rectSortingStrategy}>
            <ol
              aria-label="Steps"
              className="flex max-h-[80px] flex-wrap gap-1.5 overflow-y-auto p-0.5 pointer-coarse:max-h-[102px]"
            >
              {ids.map((id, i) => (
                <StepButton key={id} id={id} number={i + 1} open={id === open} />
              ))}
            </ol>
          </SortableContext>
        </DndContext>
        {open !== null && <Gone id={open} />}
      </div>
      <div className="flex h-9 shrink-0 items-center gap-1.5 pointer-coarse:h-12">
        <Ways />
        {open !== null && <AboutStep key={open} id={open} />}
        <button type="button" className="button pointer-coarse:min-h-11" onClick={keepStep}>
          Keep as step
        </button>
      </div>
    </section>
  )
}

const screenReaderInstructions = {
  draggable: 'Space takes hold of this step, the arrow keys move it, Space puts it down.',
}

function spoken(titles: ReadonlyMap<string, string>): Announcements {
  const named = (id: UniqueIdentifier) => titles.get(String(id)) ?? ''
  return {
    onDragStart: ({ active }) => `${named(active.id)} is held`,
    onDragOver: ({ over }) => (over ? `At ${named(over.id)}` : undefined),
    // The page itself says where the step has come to.
    onDragEnd: () => undefined,
    onDragCancel: ({ active }) => `${named(active.id)} stays where it was`,
  }
}

/** One step: pressed to go there, and pressed again to close it; moved by its number. */
function StepButton({ id, number, open }: { id: string; number: number; open: boolean }) {
  const { goToStep } = useWorkbenchStore().getState()
  const title = useStudy((s) => s.steps.find((one) => one.id === id)?.title ?? '')
  const isPoor = useGone(id).length > 0
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id,
  })
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? undefined }}
      className={`flex rounded-md border bg-page ${
        open
          ? 'max-w-[200px] border-ink outline outline-1 outline-ink'
          : 'max-w-[138px] border-rule'
      } ${isDragging ? 'z-10 shadow-lg' : ''}`}
    >
      <button
        type="button"
        aria-label={`Move number ${number}`}
        title="Drag the step by its number, or move it with Space and the arrow keys"
        className="w-6 shrink-0 cursor-grab touch-none rounded-l-md text-center font-serif text-quiet italic active:cursor-grabbing pointer-coarse:w-11"
        {...attributes}
        {...listeners}
      >
        {number}
      </button>
      <button
        type="button"
        aria-label={title}
        aria-current={open ? 'step' : undefined}
        title={open ? `${title}: press to close it` : title}
        className="flex min-h-[30px] min-w-0 flex-1 items-center gap-1.5 rounded-r-md pr-2 pointer-coarse:min-h-11"
        onClick={() => goToStep(open ? null : id)}
      >
        <span className="truncate">{title}</span>
        {isPoor && (
          <span className="font-semibold text-ochre" title="Something it shows is gone">
            !
          </span>
        )}
      </button>
    </li>
  )
}

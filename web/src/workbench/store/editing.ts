import { record, redo, undo, withoutUnused } from '@yperkine/core'
import type { Drawing } from './drawing'
import type { GetWorkbench, Workbench } from './state'

/** Edits of the study, and the way back. */
export function editing(
  get: GetWorkbench,
  { show }: Drawing,
): Pick<Workbench, 'apply' | 'move' | 'undo' | 'redo'> {
  return {
    apply(edit, gesture) {
      const { history } = get()
      const edited = edit(history.present)
      // While something is dragged nothing goes.
      const next = gesture === undefined ? withoutUnused(history.present, edited) : edited
      if (next !== history.present) show(record(history, next, gesture ?? null))
    },
    move(edit, gesture) {
      const { study, now } = edit(get().history.present)
      get().apply(() => study, gesture)
      return now
    },
    undo() {
      get().pause()
      const before = get().history
      show(undo(before))
      get().announce(before.past.length > 0 ? 'Undone' : 'Nothing to undo')
    },
    redo() {
      get().pause()
      const before = get().history
      show(redo(before))
      get().announce(before.future.length > 0 ? 'Done again' : 'Nothing to do again')
    },
  }
}

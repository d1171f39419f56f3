import {
  onlyMoves,
  record,
  redo,
  type Study,
  takenFromStep,
  undo,
  withoutUnused,
} from '@yperkine/core'
import type { Drawing } from './drawing'
import type { GetWorkbench, Workbench } from './state'

/** Edits of the study, and the way back. */
export function editing(
  get: GetWorkbench,
  { show }: Drawing,
): Pick<Workbench, 'apply' | 'move' | 'undo' | 'redo'> {
  return {
    apply(edit, gesture) {
      get().endGlide()
      const { history, shown, live, courses, view } = get()
      const edited = edit(shown)
      // Whoever reads moves what is there.
      if (view !== 'bench' && !onlyMoves(shown, edited)) return
      // While something is dragged nothing goes.
      const left = gesture === undefined ? withoutUnused(shown, edited) : edited
      const next = takenFromStep(history.present, history.step, shown, left)
      if (next === history.present) return
      // What a step has played gives way to a value that someone sets.
      const still = courses === null ? stillLive(live, shown, left) : live
      show(record(history, next, gesture ?? null), { live: still })
    },
    move(edit, gesture) {
      const { study, now } = edit(get().shown)
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

/** The values on their way without those of sliders that an edit has set. */
function stillLive(live: Workbench['live'], before: Study, after: Study): Workbench['live'] {
  if (live.size === 0) return live
  const was = new Map(before.sliders.map((s) => [s.name, s.value]))
  const set = after.sliders.filter((s) => was.get(s.name) !== s.value && live.has(s.name))
  if (set.length === 0) return live
  const names = new Set(set.map((s) => s.name))
  return new Map([...live].filter(([name]) => !names.has(name)))
}

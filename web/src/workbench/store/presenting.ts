import { record } from '@yperkine/core'
import type { Drawing } from './drawing'
import type { GetWorkbench, SetWorkbench, Workbench } from './state'

/** Presenting a lesson: what is changed meanwhile is kept or dropped at its end. */
export function presenting(
  set: SetWorkbench,
  get: GetWorkbench,
  { show }: Drawing,
): Pick<Workbench, 'present' | 'endPresent' | 'hideNumbers'> {
  return {
    present() {
      const { history, presenting } = get()
      if (presenting) return
      set({ presenting: { since: Date.now(), before: history.present, numbers: true } })
      const [first] = history.present.steps
      if (history.step === null && first) get().goToStep(first.id)
    },
    endPresent(keep) {
      const { presenting } = get()
      if (!presenting) return
      get().pause()
      get().endGlide()
      const { history } = get()
      const { before } = presenting
      set({ presenting: null })
      if (!keep && before !== history.present) show(record(history, before), { live: new Map() })
    },
    hideNumbers(hidden) {
      const { presenting, announce } = get()
      if (!presenting) return
      set({ presenting: { ...presenting, numbers: !hidden } })
      announce(hidden ? 'Numbers hidden' : 'Numbers shown')
    },
  }
}

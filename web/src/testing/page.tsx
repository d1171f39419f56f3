import { createStudy, offersFor, type Study } from '@yperkine/core'
import { act, render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { createWorkbench, WorkbenchContext } from '../workbench/store'

/** What this page without a screen lacks. */
class NoObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
/** A pointer is a mouse that has a number. */
class PointerAsMouse extends MouseEvent {
  readonly pointerId: number
  constructor(type: string, init: PointerEventInit = {}) {
    super(type, init)
    this.pointerId = init.pointerId ?? 0
  }
}
globalThis.PointerEvent ??= PointerAsMouse as unknown as typeof PointerEvent
globalThis.ResizeObserver ??= NoObserver
Element.prototype.setPointerCapture ??= () => undefined
Element.prototype.releasePointerCapture ??= () => undefined
Element.prototype.hasPointerCapture ??= () => false
Element.prototype.scrollIntoView ??= () => undefined

/** The flood of the lagoon with lines that some words ask for. */
export function flood(...words: string[]): Study {
  const created = createStudy('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return words.reduce((now, say) => offersFor(say, now, null)[0]!.edit(now), created.study)
}

/** Shows a part of the workbench about a study, on a picture 800 pixels wide with lanes of 300. */
export async function show(study: Study, part: (study: Study) => ReactNode) {
  const store = createWorkbench('one', study)
  const heights = Object.fromEntries(study.lanes.map((l) => [l.id, 300]))
  store.getState().resize({ width: 800, heights })
  const user = userEvent.setup()
  // Typeset mathematics arrives a moment after the rest.
  const page = await act(async () =>
    render(<WorkbenchContext.Provider value={store}>{part(study)}</WorkbenchContext.Provider>),
  )
  const now = () => store.getState().evaluation.study
  return { store, user, page, now }
}

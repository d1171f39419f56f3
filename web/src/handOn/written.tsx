import { type Study, svgOf } from '@yperkine/core'
import { createRoot } from 'react-dom/client'
import { ReadWorking } from '../reading/ReadWorking'
import { createWorkbench, WorkbenchContext, type WorkbenchStore } from '../workbench/store'
import { drawingOf } from './make'
import { usualSettings } from './settings'
import { loadTypesetter } from './typesetter'

/** What is still being worked out after so long is left out, in milliseconds. */
const patience = 15_000
const glance = 60

/** What only a script brings to life. */
const needsScript =
  'button, input, select, canvas, progress, [role="switch"], [role="status"], [aria-live="polite"], [tabindex]:not([role])'

/**
 * The picture and the working of a study as markup, its formulas typeset: what a take-away page shows
 * before its script has run, and where none may run.
 */
export async function writtenOut(study: Study): Promise<{ picture: string; working: string }> {
  const store = createWorkbench('', study, '', 'read')
  const place = document.createElement('div')
  place.className = 'invisible fixed top-0 left-[-200vw] h-[600px] w-[404px]'
  place.setAttribute('aria-hidden', 'true')
  document.body.append(place)
  const root = createRoot(place)
  try {
    await import('../parts/Typeset')
    root.render(
      <WorkbenchContext value={store}>
        <ReadWorking />
      </WorkbenchContext>,
    )
    await settled(place)
    const copy = place.cloneNode(true) as HTMLElement
    // The head of a table sorts it; here it is read.
    copy.querySelectorAll('th button').forEach((button) => button.replaceWith(button.textContent))
    copy.querySelectorAll(needsScript).forEach((element) => element.remove())
    const list = copy.querySelector('ol')?.innerHTML ?? ''
    return { picture: await pictureText(store), working: list }
  } finally {
    root.unmount()
    place.remove()
  }
}

/** Waits until the working stands and nothing in it is being worked out. */
async function settled(place: HTMLElement) {
  const until = performance.now() + patience
  const isOpen = () =>
    place.querySelector('ol') === null || place.querySelector('progress, [role="status"]') !== null
  do await new Promise((resolve) => setTimeout(resolve, glance))
  while (isOpen() && performance.now() < until)
}

/** The picture with its words as text in the fonts of the page, as wide as the page lets it be. */
async function pictureText(store: WorkbenchStore): Promise<string> {
  const settings = { ...usualSettings, width: 640, height: 420 }
  const drawing = drawingOf(store, settings, null, { coarse: true })
  return svgOf(drawing, await loadTypesetter(), { words: 'text' })
    .replace(/^<\?xml[^>]*>\s*/, '')
    .replace(/ width="[^"]*" height="[^"]*"/, ' width="100%"')
    .replace(/font-family="(Source (?:Serif 4|Sans 3)),/g, 'font-family="$1 Variable, $1,')
}

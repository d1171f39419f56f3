import type { Browser, Page } from '@playwright/test'

/**
 * A page that test after test works in, as a person opens study after study: most of the time of a
 * short test would go into starting the application again.
 */
export interface Room {
  page: Page | null
  /** How many tests have been in it. */
  tests: number
}

/** After so many the page is opened anew, so that it does not grow without end. */
const mostTests = 12
const usualSize = { width: 1280, height: 800 }

/** An empty page and one that cannot be reached keep nothing. */
export const putHintsAway = () => {
  if (location.protocol === 'http:') localStorage.setItem('yperkine.hints', 'put away')
}

/** The page of a room, as a test finds it: at the list of studies, with nothing kept by an earlier one. */
export async function enter(room: Room, browser: Browser, url: string): Promise<Page> {
  room.tests++
  const isUsable = room.page !== null && !room.page.isClosed() && room.tests <= mostTests
  if (isUsable && (await isTidied(room.page!, url))) return room.page!
  await room.page?.context().close()
  const context = await browser.newContext({ baseURL: url, viewport: usualSize })
  room.page = await context.newPage()
  room.tests = 1
  await room.page.addInitScript(putHintsAway)
  return room.page
}

/** Whether the page has let go of what the test before did in it; one that has not is given up. */
async function isTidied(page: Page, url: string): Promise<boolean> {
  // A page that is only for reading stays one.
  if (!page.url().startsWith(`${url}/`) || page.url().includes('view=')) return false
  for (const other of page.context().pages()) if (other !== page) await other.close()
  await page.setViewportSize(usualSize)
  await page.mouse.move(0, 0)
  return page.evaluate(async () => {
    if (document.fullscreenElement) await document.exitFullscreen()
    localStorage.clear()
    sessionStorage.clear()
    localStorage.setItem('yperkine.hints', 'put away')
    history.pushState(null, '', '/')
    dispatchEvent(new PopStateEvent('popstate'))
    const isThere = () => document.querySelector('[aria-label="Function"]') !== null
    for (let i = 0; i < 50 && !isThere(); i++) await new Promise((go) => setTimeout(go, 100))
    return isThere()
  })
}

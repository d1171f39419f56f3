import {
  type ConsoleMessage,
  expect,
  type Locator,
  type Page,
  test as base,
} from '@playwright/test'
import { type Server, startServer } from './server'
import { enter, putHintsAway, type Room } from './room'

interface Fixtures {
  /** Whether the test wants a browser of its own: it changes what is kept, sent or allowed there. */
  ownPage: boolean
  /** Whether nobody has opened a study in this browser before. */
  firstVisit: boolean
  /** A server for this test alone, which it may stop and start. */
  ownServer: Server
  bench: Bench
}

export const test = base.extend<Fixtures, { server: Server; room: Room }>({
  server: [
    async ({}, use) => {
      const server = await startServer()
      await use(server)
      await server.stop()
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ server }, use) => use(server.url),
  room: [
    async ({ browser }, use) => {
      const room: Room = { page: null, tests: 0 }
      await use(room)
      if (browser.isConnected()) await room.page?.context().close()
    },
    { scope: 'worker' },
  ],
  ownPage: [false, { option: true }],
  ownServer: async ({}, use) => {
    const server = await startServer()
    await use(server)
    await server.stop()
  },
  firstVisit: [false, { option: true }],
  /** One person's page: the one that the tests before have worked in, unless one of its own is asked for. */
  page: async ({ browser, context, room, ownPage, firstVisit, baseURL, contextOptions }, use) => {
    const isOwn = ownPage || firstVisit || Object.keys(contextOptions).length > 0
    const page = isOwn ? await context.newPage() : await enter(room, browser, baseURL!)
    if (isOwn && !firstVisit) await page.addInitScript(putHintsAway)
    const faults: string[] = []
    const onError = (error: Error) => faults.push(error.message)
    const onMessage = (message: ConsoleMessage) => {
      // A request that is refused or unanswered is what some tests are about.
      if (message.type() === 'error' && !/Failed to load resource/.test(message.text())) {
        faults.push(message.text())
      }
    }
    page.on('pageerror', onError)
    page.on('console', onMessage)
    await use(page)
    // What the page still asks for when the test is over is answered or not; nobody waits for it.
    await page.unrouteAll({ behavior: 'ignoreErrors' })
    page.off('pageerror', onError)
    page.off('console', onMessage)
    expect(faults, 'the page logs no errors').toEqual([])
  },
  bench: async ({ page }, use) => use(new Bench(page)),
})

export { expect }

/** The workbench as a person finds it: by what things are called. */
export class Bench {
  constructor(readonly page: Page) {}

  /** Types a function on the Studies page and opens its study. */
  async open(formula: string, base = '') {
    const field = this.page.getByRole('textbox', { name: 'Function' })
    if (base !== '' || !(await field.isVisible())) await this.page.goto(`${base}/`)
    await field.fill(formula)
    await this.page.keyboard.press('Enter')
    await this.working.waitFor()
  }

  get working() {
    return this.page.getByRole('region', { name: 'Working' })
  }
  lane(title: string) {
    return this.page.getByRole('figure', { name: `Lane ${title}`, exact: true })
  }
  slider(name: string) {
    return this.page.getByRole('slider', { name, exact: true })
  }
  line(sentence: string | RegExp) {
    return this.working.getByRole('listitem', { name: sentence, exact: true })
  }
  output(sentence: string | RegExp, label: string) {
    return this.line(sentence)
      .getByRole('status', { name: label })
      .or(this.line(sentence).locator(`output[aria-label="${label}"]`))
      .first()
  }
  button(name: string | RegExp) {
    return this.page.getByRole('button', { name, exact: typeof name === 'string' })
  }

  /** Says what to add and takes the first sentence offered. */
  async say(words: string) {
    const field = this.page.getByRole('combobox', { name: 'Say what to add' })
    await field.click()
    await field.fill(words)
    await this.page.locator('[role=option]').first().waitFor()
    await this.page.keyboard.press('Enter')
    await this.page.keyboard.press('Escape')
    await field.blur()
  }

  async saved() {
    await expect(this.page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible()
  }

  /** The number a slider says it has. */
  async valueOf(slider: Locator) {
    return Number(await slider.getAttribute('aria-valuenow'))
  }

  /** Drags something by pixels with the mouse, in steps as a hand does. */
  async drag(target: Locator, dx: number, dy = 0) {
    const box = (await target.boundingBox())!
    const [x, y] = [box.x + box.width / 2, box.y + Math.min(14, box.height / 2)]
    await this.page.mouse.move(x, y)
    await this.page.mouse.down()
    await this.page.mouse.move(x + dx / 3, y + dy / 3, { steps: 4 })
    await this.page.mouse.move(x + dx, y + dy, { steps: 8 })
    await this.page.mouse.up()
  }
}

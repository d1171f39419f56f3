import type { Page } from '@playwright/test'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { type Bench, expect, test } from '../support/fixtures'
import { startServer } from '../support/server'

/** A study with a tangent at a, saved; its address without what comes after it. */
async function kept(page: Page, bench: Bench, formula = 'f(x) = x^2 - 3 for -4 <= x <= 4') {
  await bench.open(formula)
  await bench.say('tangent')
  await bench.say('note Here stands {f(a)}')
  await bench.saved()
  return new URL(page.url()).pathname
}
const versionOf = async (page: Page, path: string) => {
  const answer = await page.request.get(`/api${path}`)
  return ((await answer.json()) as { version: number }).version
}

test('a study to be read moves, takes nothing on, and keeps nothing', async ({ page, bench }) => {
  const path = await kept(page, bench)
  const before = await versionOf(page, path)
  await page.context().clearCookies()
  const fresh = await page.context().browser()!.newContext()
  const reader = await fresh.newPage()
  await reader.goto(new URL(`${path}?view=read`, page.url()).href)
  const working = reader.getByRole('region', { name: 'Working' })
  const tangent = working.getByRole('listitem', { name: 'Tangent to f at x = a', exact: true })
  const slope = tangent.locator('output[aria-label=slope]')
  await expect(slope).toBeVisible()
  // None of what writes is there.
  for (const name of [/^Remove line/, /^Move line/, 'Rename', 'Undo', 'Keep as step', /^f, /]) {
    await expect(reader.getByRole('button', { name })).toHaveCount(0)
  }
  await expect(reader.getByRole('combobox', { name: 'Say what to add' })).toHaveCount(0)

  // What moves moves, and the numbers follow: the slope of x² − 3 is twice the place.
  const slider = reader.getByRole('slider', { name: 'a', exact: true })
  await slider.focus()
  for (let i = 0; i < 5; i++) await reader.keyboard.press('ArrowRight')
  const at = Number(await slider.getAttribute('aria-valuenow'))
  await expect(slope).toHaveAttribute('data-value', String(2 * at))

  // A note is seen on the picture, and its source is the writer's.
  await expect(reader.getByRole('note')).toContainText('Here stands')
  await expect(reader.getByText(/Note “/)).toHaveCount(0)

  // A press on the ruler or the curve plants nothing.
  const lane = reader.getByRole('figure', { name: 'Lane f', exact: true })
  const box = (await lane.boundingBox())!
  await reader.mouse.click(box.x + box.width * 0.7, box.y + box.height + 12)
  await reader.keyboard.press('p')
  await reader.keyboard.press('/')
  await expect(reader.getByRole('slider', { name: /^Place/ })).toHaveCount(1)
  await expect(reader.getByRole('menu')).toHaveCount(0)
  await expect(working.getByRole('listitem')).toHaveCount(2)

  await reader.getByRole('button', { name: 'As it was' }).click()
  await expect(slider).not.toHaveAttribute('aria-valuenow', String(at))
  await reader.reload()
  await expect(slope).toBeVisible()
  const stored = await reader.evaluate(async () => ({
    local: localStorage.length,
    session: sessionStorage.length,
    cookies: document.cookie,
    databases: (await indexedDB.databases()).length,
  }))
  expect(stored).toEqual({ local: 0, session: 0, cookies: '', databases: 0 })
  expect(await fresh.cookies()).toEqual([])
  await fresh.close()
  expect(await versionOf(page, path)).toBe(before)
})

test('a lesson is read step by step, and its questions can be answered', async ({
  page,
  bench,
}) => {
  const path = await kept(page, bench)
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await bench.slider('a').focus()
  await page.keyboard.press('End')
  await bench.saved()
  await page.goto(`${path}?view=read`)
  const steps = page.getByRole('list', { name: 'Steps' })
  await steps.getByRole('button').first().click()
  await expect(steps.getByRole('button').first()).toHaveAttribute('aria-current', 'step')
  await expect(page.getByRole('button', { name: 'Next in lesson' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'About this step' })).toHaveCount(0)
  await expect(page.getByRole('button', { name: /^Move number/ })).toHaveCount(0)

  // A covered lane asks whoever reads, too.
  const { studies } = (await (await page.request.get('/api/studies?search=Guess')).json()) as {
    studies: { id: string; title: string }[]
  }
  const { id } = studies.find((s) => s.title === 'Guess the rate first')!
  await page.goto(`/studies/${id}?view=read`)
  const uncover = page.getByRole('button', { name: /^Uncover/ }).first()
  const box = (await uncover.boundingBox())!
  await page.mouse.move(box.x - 200, box.y + 60)
  await page.mouse.down()
  await page.mouse.move(box.x + 100, box.y + 90, { steps: 8 })
  await page.mouse.up()
  await uncover.click()
  await expect(page.getByText(/Your guess has the right sign over \d+ % of its way/)).toBeVisible()
})

for (const [width, height] of [
  [900, 600],
  [480, 320],
  [320, 420],
] as const) {
  test(`the picture alone fills ${width} × ${height}, deck included`, async ({ page, bench }) => {
    const path = await kept(page, bench)
    await page.setViewportSize({ width, height })
    await page.goto(`${path}?view=picture`)
    const lane = (await bench.lane('f').boundingBox())!
    expect(lane.x).toBe(0)
    expect(lane.width).toBe(width)
    expect(lane.height).toBeGreaterThan(height * 0.3)
    const slider = bench.slider('a')
    await expect(slider).toBeInViewport({ ratio: 1 })
    await expect(page.getByRole('region', { name: 'Working' })).toHaveCount(0)
    await expect(page.getByRole('textbox')).toHaveCount(0)
    const overflow = await page.evaluate(() => {
      const { scrollWidth, scrollHeight } = document.documentElement
      return [scrollWidth - innerWidth, scrollHeight - innerHeight]
    })
    expect(overflow).toEqual([0, 0])
    // Dragged on the picture: the place goes along, and so does its slider.
    const before = await bench.valueOf(slider)
    await bench.drag(page.getByRole('slider', { name: 'Place a' }), width / 8)
    expect(await bench.valueOf(slider)).toBeGreaterThan(before)
    // It grows with its place.
    await page.setViewportSize({ width: width + 100, height: height + 80 })
    await expect.poll(async () => (await bench.lane('f').boundingBox())!.width).toBe(width + 100)
  })
}

/** A page of someone else that shows addresses in frames. */
async function hostPage(addresses: readonly string[]) {
  const server = createServer((_request, response) => {
    response.setHeader('content-type', 'text/html')
    response.end(
      `<!doctype html><title>A course</title>${addresses
        .map((at) => `<iframe src="${at}" width="700" height="420"></iframe>`)
        .join('')}`,
    )
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  return {
    port,
    close: () => {
      server.closeAllConnections()
      return new Promise((resolve) => server.close(resolve))
    },
  }
}

test('named pages may frame what is read, and nothing else; other pages nothing', async ({
  browser,
}) => {
  const addresses: string[] = []
  const host = await hostPage(addresses)
  // By its name the same page is of an origin that nobody has named.
  const [named, other] = [`http://127.0.0.1:${host.port}`, `http://localhost:${host.port}`]
  const server = await startServer(undefined, { FRAME_ORIGINS: named })
  // A page that refuses is logged as an error by the browser, so the tests' own page is no place for it.
  const context = await browser.newContext({ viewport: { width: 1500, height: 1400 } })
  try {
    // The list has pages: other tests fill the first.
    const answer = await fetch(`${server.url}/api/studies?search=raft`)
    const { studies } = (await answer.json()) as { studies: { id: string; title: string }[] }
    const { id, title } = studies.find((s) => s.title === 'A raft on the swell')!
    for (const query of ['?view=read', '?view=picture', '', '?view=bench']) {
      addresses.push(`${server.url}/studies/${id}${query}`)
    }
    addresses.push(`${server.url}/?view=read`)
    const page = await context.newPage()
    const shown = async (origin: string) => {
      await page.goto(origin)
      const seen: boolean[] = []
      for (const [i] of addresses.entries()) {
        const element = await page.locator('iframe').nth(i).elementHandle()
        const lane = page
          .frameLocator('iframe')
          .nth(i)
          .getByRole('figure', { name: 'Lane w', exact: true })
        const state = async () => {
          const frame = await element?.contentFrame()
          if (frame?.url().startsWith('chrome-error:')) return 'refused'
          return (await lane.count()) === 1 ? 'shown' : 'on its way'
        }
        await expect.poll(state).not.toBe('on its way')
        seen.push((await state()) === 'shown')
      }
      return seen
    }
    expect(await shown(named)).toEqual([true, true, false, false, false])
    const framed = page.frameLocator('iframe').first()
    await expect(framed.getByRole('heading', { name: title })).toBeVisible()
    await framed.getByRole('slider', { name: 'a', exact: true }).press('End')
    await expect(framed.getByRole('button', { name: 'As it was' })).toBeVisible()
    // Wheel turns over the picture scroll the page it stands in.
    await page.setViewportSize({ width: 800, height: 400 })
    await page.locator('iframe').nth(1).scrollIntoViewIfNeeded()
    const box = (await page.locator('iframe').nth(1).boundingBox())!
    await page.mouse.move(box.x + 300, Math.max(20, box.y + 60))
    const scrolled = () => page.evaluate(() => scrollY)
    const before = await scrolled()
    await page.mouse.wheel(0, 200)
    await expect.poll(scrolled).toBeGreaterThan(before)
    expect(await shown(other)).toEqual([false, false, false, false, false])
    expect(await context.cookies()).toEqual([])
  } finally {
    await context.close()
    await server.stop()
    await host.close()
  }
})

test('Link gives the address to work on, to read, or of the picture in a page', async ({
  page,
  bench,
}) => {
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  const path = await kept(page, bench)
  await bench.button('Rename').click()
  await page.getByRole('textbox', { name: 'Title' }).fill('A "quoted" <b>title</b> & more')
  await page.keyboard.press('Enter')
  await bench.button('Hand on').click()
  await page.getByRole('menuitem', { name: 'Link' }).click()
  const panel = page.getByRole('dialog', { name: 'Link' })
  const address = panel.getByRole('textbox', { name: 'Address of this study' })
  const url = new URL(path, page.url()).href
  const copied = () => page.evaluate(() => navigator.clipboard.readText())
  await expect(address).toHaveValue(url)
  await expect.poll(copied).toBe(url)
  await expect(panel).toContainText('works on this machine only')
  await panel.getByRole('radio', { name: 'To read' }).check()
  await expect(address).toHaveValue(`${url}?view=read`)
  await expect.poll(copied).toBe(`${url}?view=read`)
  await panel.getByRole('radio', { name: 'Picture only' }).check()
  await expect(panel).toContainText('No page may show it yet')
  await panel.getByRole('button', { name: 'Copy the lines' }).click()
  await expect(panel.getByRole('status')).toHaveText('The lines for a page are copied.')
  // The lines are one frame, and the title in them is text.
  const frame = await page.evaluate(async () => {
    const parsed = new DOMParser().parseFromString(
      await navigator.clipboard.readText(),
      'text/html',
    )
    const [only] = parsed.body.children
    return {
      count: parsed.body.children.length,
      src: only?.getAttribute('src'),
      title: only?.getAttribute('title'),
    }
  })
  expect(frame).toEqual({
    count: 1,
    src: `${url}?view=picture`,
    title: 'A "quoted" <b>title</b> & more',
  })
})

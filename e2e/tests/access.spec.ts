import AxeBuilder from '@axe-core/playwright'
import { Bench, expect, test } from '../support/fixtures'

const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']

async function faults(page: import('@playwright/test').Page) {
  const { violations } = await new AxeBuilder({ page }).withTags(rules).analyze()
  return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)
}
const lookOf = (page: import('@playwright/test').Page) =>
  page.evaluate(() => document.documentElement.dataset.look)

test('axe finds nothing on the Studies page', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'The flood tide' }).waitFor()
  expect(await faults(page)).toEqual([])
  await page.getByRole('textbox', { name: 'Function' }).fill('k x + (')
  expect(await faults(page)).toEqual([])
})

for (const look of ['paper', 'night', 'chalk']) {
  test(`axe finds nothing on the workbench in ${look}`, async ({ page, bench }) => {
    await bench.open('f(x) = x^2')
    await bench.button('Show f′').click()
    await bench.say('tangent')
    await bench.say('part On the picture')
    await bench.say('marker raft on f, caption {f(a)}')
    await bench.say("note The slope is {f'(a)} where $f$ = {formula f}")
    await bench.say('title A bowl')
    await bench.button('Study settings').click()
    await page.getByRole('combobox', { name: 'Look' }).selectOption(look)
    expect(await faults(page)).toEqual([])
    await bench.button('Done').click()
    expect(await lookOf(page)).toBe(look)
    expect(await faults(page)).toEqual([])
    await bench.button('x = a').first().click()
    await page.getByRole('textbox', { name: 'Place' }).fill('12')
    await page.keyboard.press('Enter')
    expect(await faults(page)).toEqual([])
  })
}

test('Tab reaches rungs, flags, tracks, bounds and slots, and the focus shows', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2')
  await bench.say('tangent')
  await page.locator('body').focus()
  const reached = new Set<string>()
  for (let i = 0; i < 45; i++) {
    await page.keyboard.press('Tab')
    const [name, outline] = await page.evaluate(() => {
      const element = document.activeElement as HTMLElement
      if (element === document.body) return ['', ''] as const
      const name = element.getAttribute('aria-label') ?? element.textContent ?? ''
      return [name, getComputedStyle(element).outlineStyle] as const
    })
    if (!name || reached.has(name)) continue
    reached.add(name)
    expect({ name, outline }).toEqual({ name, outline: 'solid' })
  }
  expect([...reached]).toEqual(
    expect.arrayContaining([
      'Show f′',
      'Heights of f',
      'Fit',
      'x from',
      'x to',
      'Place a',
      'Play a',
      'a',
      'f(x) = x²',
      'x = a',
      'Whole line',
      'Say what to add',
      'Undo',
      'Study settings',
    ]),
  )
})

for (const [width, height] of [
  [820, 1180],
  [1024, 768],
  [1920, 1080],
] as const) {
  test(`the page holds at ${width} wide`, async ({ page, bench }) => {
    await page.setViewportSize({ width, height })
    await bench.open('f(x) = x^2')
    await bench.say('tangent')
    const wide = await page.evaluate(() => document.documentElement.scrollWidth)
    expect(wide).toBeLessThanOrEqual(width)
    for (const part of [
      bench.lane('f'),
      bench.slider('Place a'),
      bench.working,
      bench.button('Play a'),
    ]) {
      const box = (await part.boundingBox())!
      expect(box.x).toBeGreaterThanOrEqual(0)
      expect(box.x + box.width).toBeLessThanOrEqual(width + 1)
    }
    await bench.drag(bench.slider('Place a'), 60)
    expect(await bench.valueOf(bench.slider('a'))).toBeGreaterThan(0.3)
  })
}

test('on a touch screen targets are as large as a finger, and a finger drags', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({
    viewport: { width: 820, height: 1180 },
    hasTouch: true,
    isMobile: true,
    baseURL: baseURL!,
  })
  const page = await context.newPage()
  const bench = new Bench(page)
  await bench.open('f(x) = x^2')
  await bench.say('tangent')
  const targets = [
    bench.slider('Place a'),
    bench.slider('a'),
    bench.button('Show f′'),
    bench.button('Play a'),
    bench.button('Step back'),
    bench.button('Fit'),
    bench.button('Heights of f'),
    bench.button('Whole line'),
    bench.button('Undo'),
    page.getByRole('spinbutton', { name: 'x from' }),
  ]
  for (const target of targets) {
    const box = (await target.boundingBox())!
    expect(Math.min(box.width, box.height), String(target)).toBeGreaterThanOrEqual(44)
  }
  const flag = (await bench.slider('Place a').boundingBox())!
  const client = await context.newCDPSession(page)
  const [x, y] = [flag.x + flag.width / 2, flag.y + flag.height / 2]
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', dx?: number) =>
    client.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: dx === undefined ? [] : [{ x: x + dx, y, id: 0 }],
    })
  await touch('touchStart', 0)
  for (const dx of [20, 50, 80]) await touch('touchMove', dx)
  await touch('touchEnd')
  expect(await bench.valueOf(bench.slider('a'))).toBeGreaterThan(0.5)
  await context.close()
})

test('at 200 % zoom everything is still there', async ({ page, bench }) => {
  // Zooming to 200 % halves the pixels a page has.
  await page.setViewportSize({ width: 640, height: 400 })
  await bench.open('f(x) = x^2')
  await bench.say('tangent')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640)
  await bench.slider('Place a').scrollIntoViewIfNeeded()
  await bench.slider('Place a').press('ArrowRight')
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', '0.1')
})

test('single keys can be switched off, notation and grid changed', async ({ page, bench }) => {
  await bench.open('f(x) = x^2')
  await bench.say('rate')
  await bench.button('Study settings').click()
  await page.getByRole('combobox', { name: 'Notation' }).selectOption('df/dx')
  await page.getByRole('checkbox', { name: 'Grid' }).uncheck()
  await bench.button('Done').click()
  await expect(bench.line('Rate of change f′(x) = 2x').locator('.katex .mfrac')).toBeVisible()
  await expect(bench.lane('f').locator('path.stroke-grid')).toHaveCount(0)
  await page.keyboard.press('?')
  await page.getByRole('checkbox', { name: 'Single keys work on this study' }).uncheck()
  await bench.button('Done').click()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toBeHidden()
})

test('on a phone dialogs are sheets with Done in reach, the title stays, nothing runs off the edge', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto('/')
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('The flood tide')
  await page.getByRole('link', { name: 'The flood tide', exact: true }).click()
  const title = page.getByRole('heading', { level: 1 })
  await expect(title).toContainText('The flood tide')
  const box = await title.locator('span').boundingBox()
  expect(box!.width).toBeGreaterThan(90)

  const sheets = [
    'Study settings',
    'How it works',
    /^a moves there and back/,
    'Readings from a file',
  ] as const
  for (const name of sheets) {
    await page.getByRole('button', { name }).click()
    const dialog = page.getByRole('dialog')
    const done = dialog.getByRole('button', { name: 'Done' })
    await expect(done).toBeInViewport({ ratio: 1 })
    const { x, y, width, height } = (await done.boundingBox())!
    expect(x).toBeGreaterThanOrEqual(0)
    expect(x + width).toBeLessThanOrEqual(390)
    expect(y + height).toBeLessThanOrEqual(844)
    const beyond = await dialog.evaluate((element) =>
      [...element.querySelectorAll('input, select, button, p')].flatMap((e) => {
        const { right, left, width } = e.getBoundingClientRect()
        return width > 1 && (right > innerWidth || left < 0) ? [e.outerHTML.slice(0, 80)] : []
      }),
    )
    expect(beyond).toEqual([])
    await done.click()
    await expect(dialog).toBeHidden()
  }
  await title.getByRole('button', { name: 'Rename' }).click()
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeInViewport({ ratio: 1 })
})

test('axe finds nothing while a lesson is presented, nor in the speaker’s window', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  await bench.say('tangent')
  await bench.say('part Slopes')
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await page.getByRole('button', { name: 'Step 1', exact: true }).click()
  await expect(page.getByRole('button', { name: 'About this step' })).toBeVisible()
  expect(await faults(page)).toEqual([])
  for (const look of ['paper', 'night', 'chalk']) {
    await bench.button('Study settings').click()
    await page.getByRole('combobox', { name: 'Look' }).selectOption(look)
    await bench.button('Done').click()
    await page.locator('body').press('p')
    await expect(page.getByRole('main', { name: /^Presenting/ })).toBeVisible()
    expect(await faults(page)).toEqual([])
    if (look === 'chalk') {
      const opening = page.context().waitForEvent('page')
      await page.keyboard.press('s')
      const speaker = await opening
      await expect(speaker.getByRole('region', { name: 'Now' })).toContainText('Step 1')
      expect(await faults(speaker)).toEqual([])
    }
    await page.keyboard.press('p')
    await expect(page.getByRole('region', { name: 'Working' })).toBeVisible()
  }
})

import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { type Bench, expect, test } from '../support/fixtures'
import { likeness } from '../support/pixels'

test.use({ ownPage: true })

const dune = 'z = 4e^(-x²/8 - y²/5) + 0.3 sin x'
const view = (page: Page) => page.getByRole('figure', { name: 'Surface z' })
const turn = (page: Page) => page.getByRole('slider', { name: 'Turn z' })

/** A browser that draws nothing in three dimensions by itself. */
const withoutWebGl = (page: Page) =>
  page.addInitScript(() => {
    const usual = HTMLCanvasElement.prototype.getContext as (...a: unknown[]) => unknown
    HTMLCanvasElement.prototype.getContext = function (this: unknown, ...all: unknown[]) {
      return /webgl/.test(String(all[0])) ? null : usual.apply(this, all)
    } as never
  })

const slopes = async (bench: Bench) =>
  Promise.all(
    ['slope along x', 'slope along y'].map(async (label) =>
      Number(await bench.output('Tangent plane at (a, b)', label).getAttribute('data-value')),
    ),
  )

/** The partial derivatives of the dune, by hand. */
const byHand = (x: number, y: number) => {
  const e = Math.exp(-(x * x) / 8 - (y * y) / 5)
  return [-x * e + 0.3 * Math.cos(x), -1.6 * y * e]
}

test('two actions lead to a tangent plane; its point is dragged on the surface, and the sections follow', async ({
  page,
  bench,
}) => {
  const asked: string[] = []
  page.on('request', (request) => asked.push(request.url()))
  await page.goto('/')
  await page.getByRole('textbox', { name: 'Function' }).fill(dune)
  await expect(page.getByText('over [-5, 5] × [-5, 5]')).toBeVisible()
  expect(asked.filter((url) => /Space/.test(url))).toEqual([])
  await page.keyboard.press('Enter')
  await bench.working.waitFor()
  await bench.say('tangent plane')
  await expect(view(page)).toHaveAttribute('data-drawn-by', 'webgl')
  await expect(bench.output('Tangent plane at (a, b)', 'height')).toBeVisible()
  const at = async () => [
    await bench.valueOf(bench.slider('a')),
    await bench.valueOf(bench.slider('b')),
  ]
  // The partial derivative is read as mathematics, and as text by who does not see it.
  const partial = bench.output('Tangent plane at (a, b)', '∂z/∂x')
  await expect(partial.locator('.katex').first()).toBeVisible()
  await expect(partial).toContainText('0.3 cos(x) − x e^(−x²/8 − y²/5)')
  const [a, b] = await at()
  const expected = byHand(a!, b!)
  expect((await slopes(bench)).map((v) => v.toFixed(9))).toEqual(expected.map((v) => v.toFixed(9)))

  // The point goes where the pointer does, and its numbers with it.
  const spot = page.locator('[data-spot]')
  await bench.drag(spot, 30, 50)
  const [x, y] = await at()
  expect([x, y]).not.toEqual([a, b])
  const moved = byHand(x!, y!)
  expect((await slopes(bench)).map((v) => v.toFixed(9))).toEqual(moved.map((v) => v.toFixed(9)))
  await page.keyboard.press('Control+z')
  await expect.poll(at).toEqual([a, b])

  // A partial derivative is the slope of a section, which moves with the point.
  await bench.say('section with y = b')
  const section = bench.line('Section s(x) with y = b, slope at x = a')
  await expect(section).toBeVisible()
  await expect(bench.lane('s')).toBeVisible()
  await bench.slider('b').focus()
  await page.keyboard.press('ArrowRight')
  const [p, q] = await at()
  await expect(bench.output(/^Section s/, 'slope')).toHaveAttribute(
    'data-value',
    new RegExp(`^${byHand(p!, q!)[0]!.toFixed(6)}`),
  )
})

test('the view is turned by mouse, keys and typed directions, is undone, and is there again', async ({
  page,
  bench,
}) => {
  await bench.open(dune)
  const said = () => turn(page).getAttribute('aria-valuetext')
  await expect(turn(page)).toHaveAttribute('aria-valuetext', 'azimuth -55°, elevation 28°')
  await bench.drag(turn(page), 120, 60)
  const dragged = await said()
  expect(dragged).not.toBe('azimuth -55°, elevation 28°')
  await turn(page).focus()
  await page.keyboard.press('Home')
  await expect(turn(page)).toHaveAttribute('aria-valuetext', 'azimuth -55°, elevation 28°')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Shift+ArrowUp')
  await expect(turn(page)).toHaveAttribute('aria-valuetext', 'azimuth -50°, elevation 43°')
  await page.getByRole('button', { name: 'View of z' }).click()
  await page.getByRole('spinbutton', { name: 'azimuth' }).fill('30')
  await page.keyboard.press('Enter')
  await page.getByRole('spinbutton', { name: 'elevation' }).fill('95')
  await page.keyboard.press('Enter')
  await page.getByLabel('In perspective').check()
  await page.getByLabel('Equal scales').check()
  await page.getByLabel('Level lines').check()
  await page.keyboard.press('Escape')
  await expect(turn(page)).toHaveAttribute('aria-valuetext', 'azimuth 30°, elevation 90°')
  await bench.saved()
  await page.reload()
  await expect(turn(page)).toHaveAttribute('aria-valuetext', 'azimuth 30°, elevation 90°')
  await page.getByRole('button', { name: 'View of z' }).click()
  await expect(page.getByLabel('Level lines')).toBeChecked()
})

test('without WebGL the same picture is drawn as SVG, still turning', async ({
  page,
  bench,
  context,
}) => {
  await bench.open(dune)
  await bench.say('tangent plane')
  await bench.saved()
  const other = await context.newPage()
  await withoutWebGl(other)
  await other.goto(page.url())
  await expect(view(other)).toHaveAttribute('data-drawn-by', 'svg')
  await expect(other.locator('[data-spot]')).toHaveCount(1)
  const faces = () => view(other).locator('path').count()
  expect(await faces()).toBeGreaterThan(1000)
  await page.waitForTimeout(1500)
  const [gl, svg] = [await view(page).screenshot(), await view(other).screenshot()]
  const alike = await likeness(
    page,
    { bytes: gl, type: 'image/png' },
    { bytes: svg, type: 'image/png' },
  )
  expect(alike).toBeGreaterThan(22)
  // While it turns it is coarser, and whole again where it rests.
  const box = (await turn(other).boundingBox())!
  await other.mouse.move(box.x + 200, box.y + 300)
  await other.mouse.down()
  await other.mouse.move(box.x + 300, box.y + 320, { steps: 5 })
  await expect.poll(faces).toBeLessThan(1800)
  await other.mouse.up()
  await expect.poll(faces).toBeGreaterThan(1800)
})

test('y where a curve is asked for, and a surface without any value, are told with a way out', async ({
  page,
  bench,
}) => {
  await page.goto('/')
  await page.getByRole('textbox', { name: 'Function' }).fill('x^2 + y^2')
  await expect(page.getByText(/y has no value yet/)).toBeVisible()
  await page.getByRole('button', { name: 'Use z = x^2 + y^2' }).click()
  await page.getByRole('button', { name: 'Open', exact: true }).click()
  await bench.working.waitFor()
  await expect(view(page)).toBeVisible()
  await bench
    .line(/^Surface z/)
    .getByRole('button', { name: /^z = / })
    .click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('z = ln(-1 - x^2 - y^2)')
  await page.keyboard.press('Enter')
  await expect(bench.line(/^Surface z/)).toContainText('has no value at any place looked at')
  await page.keyboard.press('Control+z')
  await expect(view(page)).toBeVisible()
})

test('critical points of the demo are proven, and the picture goes out as SVG and PNG', async ({
  page,
  bench,
}) => {
  const found = await page.request.get('/api/studies?search=plane%20on%20the%20dune')
  const { studies } = (await found.json()) as { studies: { id: string }[] }
  await page.goto(`/studies/${studies[0]!.id}`)
  const critical = bench.line('Critical points of the surface')
  await expect(critical).toContainText('Complete: 2 points')
  await expect(critical).toContainText('saddle')
  for (const [item, type] of [
    ['Picture as SVG', 'svg'],
    ['Picture as PNG', 'png'],
  ] as const) {
    await page.getByRole('button', { name: 'Hand on' }).click()
    const download = page.waitForEvent('download')
    await page.getByRole('menuitem', { name: item }).click()
    const bytes = readFileSync(await (await download).path())
    if (type === 'png') expect(bytes.subarray(1, 4).toString()).toBe('PNG')
    else expect(bytes.toString()).toContain('The surface z over −6 to 6')
    expect(bytes.length).toBeGreaterThan(30_000)
  }
})

test('at 390 pixels the surface stands above its lanes, and a finger turns it', async ({
  browser,
  page,
  bench,
}) => {
  await bench.open(dune)
  await bench.say('section')
  await bench.saved()
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  })
  const phone = await context.newPage()
  await phone.goto(page.url())
  await turn(phone).waitFor()
  const [surface, lane] = await Promise.all([
    view(phone).boundingBox(),
    phone.getByRole('figure', { name: 'Lane s', exact: true }).boundingBox(),
  ])
  expect(surface!.width).toBe(390)
  expect(surface!.height).toBeGreaterThan(250)
  expect(lane!.y).toBeGreaterThanOrEqual(surface!.y + surface!.height - 1)
  const before = await turn(phone).getAttribute('aria-valuetext')
  const cdp = await context.newCDPSession(phone)
  const at = (x: number, y: number) => [{ x: surface!.x + x, y: surface!.y + y }]
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(60, 220) })
  for (let i = 1; i <= 6; i++) {
    await cdp.send('Input.dispatchTouchEvent', {
      type: 'touchMove',
      touchPoints: at(60 + 20 * i, 220),
    })
  }
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  await expect(turn(phone)).not.toHaveAttribute('aria-valuetext', before!)
  expect(
    await phone.evaluate(() => document.documentElement.scrollWidth - innerWidth),
  ).toBeLessThanOrEqual(0)
  await context.close()
})

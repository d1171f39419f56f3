import { type Locator } from '@playwright/test'
import { type Bench, expect, test } from '../support/fixtures'

const bounds = async (bench: Bench) => {
  const value = async (name: string) =>
    Number(
      await bench.page.getByRole('spinbutton', { name, exact: true }).getAttribute('aria-valuenow'),
    )
  return [await value('x from'), await value('x to')] as const
}
const centre = async (target: Locator) => {
  const box = (await target.boundingBox())!
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
}
const plot = (bench: Bench, lane = 'f') => bench.lane(lane).locator('svg[role=presentation]')
const pathOf = (bench: Bench) => bench.lane('f').locator('path[data-item=curve]').getAttribute('d')

test.beforeEach(async ({ bench }) => {
  await bench.open('f(x) = x^2/4 - 3')
})

test('the wheel zooms at the pointer, and what is under it stays', async ({ page, bench }) => {
  const before = await bounds(bench)
  const box = (await plot(bench).boundingBox())!
  const share = 0.25
  await page.mouse.move(box.x + share * box.width, box.y + box.height / 2)
  await page.mouse.wheel(0, -300)
  await expect.poll(async () => (await bounds(bench))[1]).toBeLessThan(before[1])
  const after = await bounds(bench)
  const at = ([from, to]: readonly [number, number]) => from + share * (to - from)
  expect(at(after)).toBeCloseTo(at(before), 1)
  expect(after[1] - after[0]).toBeLessThan(0.8 * (before[1] - before[0]))
  await bench.button('Fit').click()
  expect(await bounds(bench)).toEqual(before)
})

test('over a lane’s head only the heights zoom', async ({ page, bench }) => {
  const before = await bounds(bench)
  const path = await pathOf(bench)
  const box = (await bench.lane('f').boundingBox())!
  await page.mouse.move(box.x + 20, box.y + 300)
  await page.mouse.wheel(0, 300)
  await expect.poll(() => pathOf(bench)).not.toBe(path)
  expect(await bounds(bench)).toEqual(before)
})

test('dragging pans, as one edit', async ({ page, bench }) => {
  const before = await bounds(bench)
  const { x, y } = await centre(plot(bench))
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 60, y + 4, { steps: 4 })
  await page.mouse.move(x + 120, y + 8, { steps: 4 })
  await page.mouse.up()
  const after = await bounds(bench)
  const perPixel = (before[1] - before[0]) / (await plot(bench).boundingBox())!.width
  expect(after[0]).toBeCloseTo(before[0] - 120 * perPixel, 1)
  expect(after[1] - after[0]).toBeCloseTo(before[1] - before[0], 6)
  await bench.button('Undo').click()
  expect(await bounds(bench)).toEqual(before)
})

test('bounds are typed as expressions, and a bad one says so', async ({ page, bench }) => {
  const field = page.getByRole('spinbutton', { name: 'x to', exact: true })
  await field.fill('2pi')
  await page.keyboard.press('Enter')
  expect((await bounds(bench))[1]).toBeCloseTo(2 * Math.PI, 12)
  await field.fill('2 +')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText('something is missing after +')
  await page.keyboard.press('Escape')
  expect((await bounds(bench))[1]).toBeCloseTo(2 * Math.PI, 12)
  await field.focus()
  await page.keyboard.press('ArrowUp')
  expect((await bounds(bench))[1]).toBeCloseTo(2 * Math.PI + 1, 12)
})

test('a curve outside the frame says so and comes back', async ({ page, bench }) => {
  await bench.button('Heights of f').click()
  await page.getByRole('spinbutton', { name: 'f from' }).fill('500')
  await page.keyboard.press('Enter')
  await page.getByRole('spinbutton', { name: 'f to' }).fill('600')
  await page.keyboard.press('Enter')
  // The lower bound is above the old upper one at first, so it is entered again.
  await page.getByRole('spinbutton', { name: 'f from' }).fill('500')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(page.getByText('f lies outside this frame.')).toBeVisible()
  await bench.button('Bring curve into frame').click()
  await expect(page.getByText('f lies outside this frame.')).toBeHidden()
})

test('equal scale makes a unit as long upwards as across', async ({ page, bench }) => {
  await bench.button('f(x) = x²/4 − 3').click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('f(x) = x')
  await page.keyboard.press('Enter')
  await bench.button('Heights of f').click()
  await page.getByRole('checkbox', { name: 'Equal scale' }).check()
  await page.keyboard.press('Escape')
  const numbers = (await pathOf(bench))!.match(/-?[\d.]+/g)!.map(Number)
  const [x0, y0] = numbers as [number, number]
  const [x1, y1] = numbers.slice(-2) as [number, number]
  expect((y0 - y1) / (x1 - x0)).toBeCloseTo(1, 2)
})

/** Touches the page as fingers do; an empty list lifts them. */
async function fingers(bench: Bench) {
  const client = await bench.page.context().newCDPSession(bench.page)
  await client.send('Emulation.setTouchEmulationEnabled', { enabled: true, maxTouchPoints: 2 })
  return (type: 'touchStart' | 'touchMove' | 'touchEnd', points: [number, number][]) =>
    client.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: points.map(([px, py], id) => ({ x: px, y: py, id })),
    })
}

test.describe('with fingers', () => {
  // A browser that has been touched once lays out for fingers.
  test.use({ ownPage: true })

  test('two fingers pinch', async ({ bench }) => {
    const before = await bounds(bench)
    const { x, y } = await centre(plot(bench))
    const touch = await fingers(bench)
    await touch('touchStart', [[x - 50, y]])
    await touch('touchStart', [
      [x - 50, y],
      [x + 50, y],
    ])
    for (const d of [60, 80, 100])
      await touch('touchMove', [
        [x - d, y],
        [x + d, y],
      ])
    await touch('touchEnd', [])
    const after = await bounds(bench)
    expect((before[1] - before[0]) / (after[1] - after[0])).toBeCloseTo(2, 1)
  })

  test('two fingers pan both ways', async ({ bench }) => {
    const before = await bounds(bench)
    const path = await pathOf(bench)
    const box = (await plot(bench).boundingBox())!
    const { x, y } = await centre(plot(bench))
    const touch = await fingers(bench)
    const pair = (dx: number, dy: number): [number, number][] => [
      [x - 50 + dx, y + dy],
      [x + 50 + dx, y + dy],
    ]
    await touch('touchStart', pair(0, 0))
    for (const share of [0.25, 0.5, 0.75, 1]) await touch('touchMove', pair(80 * share, 60 * share))
    await touch('touchEnd', [])
    const after = await bounds(bench)
    const perPixel = (before[1] - before[0]) / box.width
    expect(after[0]).toBeCloseTo(before[0] - 80 * perPixel, 1)
    expect(after[1] - after[0]).toBeCloseTo(before[1] - before[0], 6)
    // The lowest point of the curve went down with the fingers.
    const lowest = (d: string) =>
      Math.max(
        ...d
          .match(/-?[\d.]+/g)!
          .map(Number)
          .filter((_, i) => i % 2),
      )
    expect(lowest((await pathOf(bench))!) - lowest(path!)).toBeCloseTo(60, -1)
  })
})

test('the edge between two lanes gives one the other’s room', async ({ page, bench }) => {
  await bench.button('Show f′').click()
  const height = async (lane: string) => (await bench.lane(lane).boundingBox())!.height
  const edge = page.getByRole('separator', { name: 'Height of lane f', exact: true })
  const [upper, lower] = [await height('f'), await height('f′')]
  await bench.drag(edge, 0, -80)
  expect(await height('f')).toBeCloseTo(upper - 80, -1)
  expect(await height('f′')).toBeCloseTo(lower + 80, -1)
  await edge.focus()
  await page.keyboard.press('PageDown')
  await expect.poll(() => height('f')).toBeCloseTo(upper - 30, -1)
  await bench.saved()
  await page.reload()
  await bench.working.waitFor()
  await expect.poll(() => height('f')).toBeCloseTo(upper - 30, -1)
  await page.keyboard.press('Control+z')
})

test('ticks count in multiples of π, and labels never touch', async ({ page, bench }) => {
  await bench.open('f(x) = sin x')
  await bench.button('Study settings').click()
  await page.getByRole('combobox', { name: 'Ticks' }).selectOption('multiples of π')
  await bench.button('Done').click()
  const labels = page.locator('svg text', { hasText: 'π' })
  await expect(labels.filter({ hasText: /^−2π$/ })).toBeVisible()
  const boxes = (await Promise.all((await labels.all()).map((l) => l.boundingBox()))).map((b) => b!)
  boxes.sort((a, b) => a.x - b.x)
  expect(boxes.length).toBeGreaterThan(4)
  for (let i = 1; i < boxes.length; i++)
    expect(boxes[i]!.x).toBeGreaterThan(boxes[i - 1]!.x + boxes[i - 1]!.width)
})

test('zoomed far out the curve is still there, and Fit shows what matters, then the whole', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^4 - 5x^2 + 4')
  await expect.poll(() => bounds(bench)).toEqual([-4, 4])
  const top = async () => {
    const ticks = await bench.lane('f').locator('text').allTextContents()
    return Math.max(...ticks.map((t) => Number(t.replace('−', '-'))).filter(Number.isFinite))
  }
  const opening = await top()
  expect(opening).toBeLessThan(20)
  const box = (await plot(bench).boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  for (let i = 0; i < 12; i++) await page.mouse.wheel(0, 600)
  await expect.poll(async () => (await bounds(bench))[1]).toBeGreaterThan(1000)
  const curve = bench.lane('f').locator('path[data-item=curve]')
  await expect(curve).toHaveAttribute('d', /M/)
  const drawn = (await curve.boundingBox())!
  expect(drawn.width).toBeGreaterThan(0.2 * box.width)
  await bench.button('Fit').click()
  await expect.poll(() => bounds(bench)).toEqual([-4, 4])
  await expect.poll(top).toBe(opening)
  await bench.button('Fit').click()
  // 4⁴ − 5 · 4² + 4 = 180 at the ends.
  await expect.poll(top).toBeGreaterThan(150)
  await page.keyboard.press('0')
  await expect.poll(top).toBe(opening)
})

test('a span is set when it is asked for, in one press or behind the formula, and goes again', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^3 - 3x')
  await expect(bench.line('Let f(x) = x³ − 3x')).toBeVisible()
  await bench.button('Set a span').click()
  await expect(bench.line('Let f(x) = x³ − 3x for −3 ≤ x ≤ 3')).toBeVisible()
  await bench.button('−3 ≤ x ≤ 3').click()
  await page.getByRole('textbox', { name: 'Span' }).fill('')
  await page.keyboard.press('Enter')
  await expect(bench.line('Let f(x) = x³ − 3x')).toBeVisible()
  await bench.button('f(x) = x³ − 3x').click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('f(x) = x^2 for 0 <= x <= 4')
  await page.keyboard.press('Enter')
  await expect(bench.line('Let f(x) = x² for 0 ≤ x ≤ 4')).toBeVisible()
  await bench.button('Draw it everywhere').click()
  await expect(bench.line('Let f(x) = x²')).toBeVisible()
  await bench.saved()
  await page.reload()
  await expect(bench.line('Let f(x) = x²')).toBeVisible()
})

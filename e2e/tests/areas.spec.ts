import { expect, test } from '../support/fixtures'

// ∫ of 6 + 4 sin(0.9t) − 0.3t from 1 to 7 is 27.1188…, by the antiderivative.
const inflow = 'q(t) = 6 + 4 sin(0.9t) - 0.3t'
const line = (n: number, height: string) =>
  `Area under q over [1, 7] with n = ${n} strips, height ${height}`

test('strips from an empty study to a played sum, in three actions', async ({ page, bench }) => {
  await bench.open(inflow)
  await bench.say('area under q over 1 to 7')
  await expect(bench.output(line(8, 'at the left'), 'sum')).toHaveText('29.008')
  await expect(bench.output(line(8, 'at the left'), 'exact')).toHaveText('27.119')
  await expect(bench.output(line(8, 'at the left'), 'difference')).toHaveText('over by 1.889')
  await expect(bench.working).toContainText('q falls from 1.75 to 4.75 (strips 2 to 5)')
  const picture = bench.lane('q')
  await expect(picture.locator('[data-item$=".over"]')).toHaveAttribute('d', /^M/)
  await expect(picture.locator('[data-item$=".short"]')).toHaveAttribute('d', /^M/)
  const frame = await page.getByRole('spinbutton', { name: 't from' }).inputValue()
  await page.getByRole('button', { name: 'Play n' }).click()
  await expect.poll(() => bench.valueOf(bench.slider('n')), { timeout: 9000 }).toBeGreaterThan(40)
  await page.getByRole('button', { name: 'Pause n' }).click()
  expect(await page.getByRole('spinbutton', { name: 't from' }).inputValue()).toBe(frame)
})

test('a curve that takes long to examine has its slivers and totals as well', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t + t^2/(1 + t^2) - cos(2t) e^(-t/5)')
  await bench.say('area under q over 0 to 10')
  const area = /^Area under q over/
  const picture = bench.lane('q')
  // Trapezoids over two million stretches (NumPy): one strip is both over and short of its curve.
  await page.getByRole('button', { name: 'n = 8', exact: true }).click()
  await page.getByRole('textbox', { name: 'Number' }).fill('1')
  await page.keyboard.press('Enter')
  await expect(bench.output(area, 'over')).toHaveText('7.550')
  await expect(bench.output(area, 'short')).toHaveText('19.465')
  await expect(picture.locator('[data-item$=".over"]')).toHaveAttribute('d', /^M/)
  for (const rule of ['lower', 'upper']) {
    await bench.line(area).getByRole('combobox').selectOption(rule)
    await expect(picture.locator('[data-item$=".above"]')).toHaveAttribute('d', /^M/)
    await expect(bench.output(area, rule === 'lower' ? 'over' : 'short')).toHaveText('0')
  }
})

test('heights, table, sigma and convergence', async ({ page, bench }) => {
  await bench.open(inflow)
  await bench.say('area under q over 1 to 7')
  await page.getByRole('combobox', { name: 'at the left' }).selectOption('0.5')
  await expect(bench.line(line(8, 'at the middle'))).toBeVisible()
  await expect(bench.slider('s')).toHaveAttribute('aria-valuenow', '0.5')
  await bench.button('Strips · 8').click()
  const rows = page.getByRole('table', { name: 'Strips' }).getByRole('row')
  await expect(rows).toHaveCount(9)
  await rows.nth(3).hover()
  await expect(bench.lane('q').locator('[data-highlight]')).toBeVisible()
  await bench.button('As a sum Σ').click()
  await expect(bench.working.locator('.katex-html').last()).toBeVisible()
  await bench.button('Convergence').click()
  await expect(bench.working).toContainText(/left 1\.00, right 1\.00, midpoint 2\.00/)
  await bench.button('Error against n').click()
  await expect(page.getByRole('figure', { name: 'Error against n' })).toBeVisible()
  await page.getByRole('spinbutton', { name: 'Error under' }).fill('0.1')
  await page.keyboard.press('Enter')
  await expect(bench.working).toContainText(/error stays under 0\.1: left 1\d\d/)
})

test('a span is drawn on the ruler, offered and dragged by its handle', async ({ page, bench }) => {
  await bench.open(inflow)
  const ruler = page.getByTitle(/drag to mark a span/)
  const box = (await ruler.boundingBox())!
  await page.mouse.move(box.x + 480, box.y + 12)
  await page.mouse.down()
  await page.mouse.move(box.x + 560, box.y + 14, { steps: 4 })
  await page.mouse.move(box.x + 640, box.y + 14, { steps: 4 })
  await page.mouse.up()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Area under q over/ })
    .click()
  const before = await bench.valueOf(bench.slider('Span 1 to'))
  await bench.drag(bench.slider('Span 1 to'), 60)
  expect(await bench.valueOf(bench.slider('Span 1 to'))).toBeGreaterThan(before)
  await bench.slider('Span 1 from').focus()
  await page.keyboard.press('Enter')
  await page.getByRole('textbox', { name: 'Span 1 from exactly' }).fill('pi/2')
  await page.keyboard.press('Enter')
  await expect(
    bench.working.getByRole('listitem', { name: /Area under q over \[π\/2/ }),
  ).toBeVisible()
})

test('the area as a function: value, slope and shading follow a place', async ({ page, bench }) => {
  await bench.open(inflow)
  await bench.say('accumulate q from 0')
  await bench.say('value of A')
  await bench.say('tangent to A')
  const slope = bench.output('Tangent to A at t = a', 'slope')
  // Midway the area is that from 0 to 0; to the right there is something to shade.
  await bench.drag(bench.slider('Place a'), 80)
  const a = await bench.valueOf(bench.slider('Place a'))
  expect(Number(await slope.getAttribute('data-value'))).toBeCloseTo(
    6 + 4 * Math.sin(0.9 * a) - 0.3 * a,
    9,
  )
  const shade = bench.lane('q').locator('[data-item$=".above"]')
  const before = await shade.getAttribute('d')
  await bench.drag(bench.slider('Place a'), 50)
  expect(await shade.getAttribute('d')).not.toBe(before)
  await page.keyboard.press('Escape')
})

test('an area that runs away gives no number, and says where', async ({ bench }) => {
  await bench.open('f(x) = 1/x')
  await bench.say('area under f over -1 to 1')
  await expect(bench.working).toContainText('the area grows without bound at x = 0')
  await expect(bench.working.locator('output[aria-label="exact"]')).toHaveCount(0)
})

test('the height snaps to left, middle and right under the pointer, and keys go past them', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  await bench.say('area 1 to 7')
  const height = bench.slider('s')
  const box = (await height.boundingBox())!
  const pressAt = async (share: number, off: number) => {
    await page.mouse.click(box.x + 8 + share * (box.width - 16) + off, box.y + box.height / 2)
  }
  await pressAt(0.5, 5)
  await expect(height).toHaveAttribute('aria-valuetext', 's = 0.5, middle')
  await expect(bench.line(/height at the middle$/)).toBeVisible()
  await pressAt(1, -5)
  await expect(height).toHaveAttribute('aria-valuetext', 's = 1, right')
  await pressAt(0.75, 0)
  expect(await bench.valueOf(height)).toBeCloseTo(0.75, 1)
  await pressAt(0.5, 0)
  await height.focus()
  await page.keyboard.press('ArrowRight')
  await expect(height).toHaveAttribute('aria-valuetext', 's = 0.51')
})

test('the area as a function leaves a trail as its place travels', async ({ page, bench }) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  await bench.say('accumulate')
  await bench.say('value of A')
  const trail = bench.button('Trail')
  await trail.click()
  await expect(trail).toHaveAttribute('aria-pressed', 'true')
  const dots = async () => {
    const paths = bench.lane('A').locator('path.stroke-ink')
    const all = await paths.evaluateAll((list) => list.map((p) => p.getAttribute('d') ?? ''))
    return Math.max(0, ...all.map((d) => d.match(/M/g)?.length ?? 0))
  }
  const before = await dots()
  expect(before).toBeGreaterThan(10)
  await bench.drag(bench.slider('Place a'), 200)
  expect(await dots()).toBeGreaterThan(before + 10)
  await page.keyboard.press('Home')
  await expect.poll(dots).toBe(0)
})

test('everyday words are understood, and what is not is told why', async ({ page, bench }) => {
  await bench.open('f(x) = x^2')
  await bench.say('integral from 0 to 2')
  const area = 'Area under f over [0, 2] with n = 8 strips, height at the left'
  await expect(bench.line(area)).toContainText('exactly 8/3')
  await bench.say('what is the slope at 3?')
  await expect(bench.output('Tangent to f at x = 3', 'slope')).toHaveText('6')
  const field = page.getByRole('combobox', { name: 'Say what to add' })
  await field.fill('intersection')
  await expect(page.getByText('That takes a second curve: let r(x) = …')).toBeVisible()
  await bench.say('let r(x) = 2x')
  await bench.say('intersections')
  const meeting = bench.line(/^Where does f meet r/)
  await expect(meeting).toContainText('They meet at x = 0 and 2')
  // Both stand on one lane, so that they are seen to meet.
  await expect(bench.lane('f').locator('[data-item="over.r.0"]')).toBeAttached()
})

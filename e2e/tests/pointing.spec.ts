import { type Bench, expect, test } from '../support/fixtures'

const plot = (bench: Bench) => bench.lane('f').locator('svg[role=presentation]')

/** Where the curve stands in the window above a value of x, read off its path. */
async function onCurve(bench: Bench, share: number) {
  const box = (await plot(bench).boundingBox())!
  const d = (await bench.lane('f').locator('path[data-item=curve]').getAttribute('d'))!
  const numbers = d.match(/-?[\d.]+/g)!.map(Number)
  const points = numbers.flatMap((n, i) => (i % 2 === 0 ? [[n, numbers[i + 1]!] as const] : []))
  const wanted = share * box.width
  const [x, y] = points.reduce((a, b) =>
    Math.abs(b[0] - wanted) < Math.abs(a[0] - wanted) ? b : a,
  )
  return { x: box.x + x, y: box.y + y }
}

test.beforeEach(async ({ bench }) => {
  await bench.open('f(x) = x^2/4 - 3')
})

test('resting on a curve shows its value there; off the curve nothing is said', async ({
  page,
  bench,
}) => {
  const said = bench.lane('f').getByText(/^f\(/)
  const { x, y } = await onCurve(bench, 0.7)
  await page.mouse.move(x, y + 3)
  await expect(said).toBeVisible()
  const [, at, value] = /^f\((.+)\) ≈ (.+)$/.exec((await said.textContent())!.replaceAll('−', '-'))!
  expect(Number(value)).toBeCloseTo(Number(at) ** 2 / 4 - 3, 3)
  await page.mouse.move(x, y - 150)
  await expect(said).toBeHidden()
})

test('a click on a curve offers what can hang on that place', async ({ page, bench }) => {
  const { x, y } = await onCurve(bench, 0.7)
  await page.mouse.click(x, y)
  const offers = page.getByRole('dialog', { name: /^What to add at f\(/ })
  await offers.getByRole('button', { name: /^Tangent to f at x = [\d.]+$/ }).click()
  await expect(offers).toBeHidden()
  const line = bench.line(/^Tangent to f at x = [\d.]+$/)
  await expect(line).toBeVisible()
  const at = Number(/[\d.]+$/.exec((await line.getAttribute('aria-label'))!)![0])
  const slope = line.locator('output[aria-label=slope]')
  expect(Number(await slope.getAttribute('data-value'))).toBeCloseTo(at / 2, 9)
  // A drag over the curve pans, and offers nothing.
  const from = await onCurve(bench, 0.3)
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + 60, from.y, { steps: 4 })
  await page.mouse.up()
  await expect(offers).toBeHidden()
  // Escape closes the offers and adds nothing.
  const again = await onCurve(bench, 0.5)
  await page.mouse.click(again.x, again.y)
  await expect(offers).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(offers).toBeHidden()
  await expect(bench.working.getByRole('listitem')).toHaveCount(2)
})

test('a click on the empty ruler puts a place there, which the next line hangs on', async ({
  page,
  bench,
}) => {
  const ruler = page.getByTitle('Click to put a place here')
  const box = (await ruler.boundingBox())!
  await page.mouse.click(box.x + 0.75 * box.width, box.y + 20)
  const flag = bench.slider('Place a')
  await expect(flag).toBeVisible()
  const at = await bench.valueOf(flag)
  expect(at).toBeGreaterThan(2.5)
  expect(at).toBeLessThan(3.5)
  const flagBox = (await flag.boundingBox())!
  expect(Math.abs(flagBox.x + flagBox.width / 2 - (box.x + 0.75 * box.width))).toBeLessThan(3)
  await bench.say('tangent')
  await expect(bench.line('Tangent to f at x = a')).toBeVisible()
  await page.mouse.click(box.x + 0.25 * box.width, box.y + 20)
  await expect(bench.slider('Place b')).toBeVisible()
  await bench.say('value of f')
  await expect(bench.line('Value of f at x = b')).toBeVisible()
})

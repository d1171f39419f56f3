import { expect, test } from '../support/fixtures'

test.beforeEach(async ({ bench }) => {
  await bench.open('f(x) = x^2/4 for -10 <= x <= 10')
  await bench.say('tangent')
})

test('what a track does stands under it, and each number is changed where it stands', async ({
  page,
  bench,
}) => {
  const deck = page.getByRole('region', { name: 'Deck' })
  await expect(deck.getByText(/from\s*−10\s*to\s*10\s*by\s*0\.1/)).toBeVisible()
  await bench.button('a to 10, change').click()
  const field = page.getByRole('textbox', { name: 'a to' })
  await field.fill('-20')
  await field.press('Enter')
  await expect(page.getByRole('alert')).toContainText('it must begin below its end')
  await field.fill('2pi')
  await field.press('Enter')
  await expect(bench.slider('a')).toHaveAttribute('aria-valuemax', String(2 * Math.PI))
  await bench.button('a by 0.1, change').click()
  await page.getByRole('textbox', { name: 'a by' }).fill('0.01')
  await page.keyboard.press('Enter')
  await expect(bench.slider('a')).toHaveAttribute('data-step', '0.01')
})

test('a slider that nothing uses any more goes, and comes back with undo', async ({
  page,
  bench,
}) => {
  await bench.say('value of f at a')
  await bench.button('Remove line 2').click()
  await expect(bench.slider('a')).toBeVisible()
  await bench.button('Remove line 2').click()
  await expect(bench.slider('a')).toBeHidden()
  // The focus is on what is still there.
  await expect(page.locator('body')).not.toBeFocused()
  await page.keyboard.press('Control+z')
  await expect(bench.slider('a')).toBeVisible()
})

test('strips run from 1 to 50, further where more are asked for', async ({ bench }) => {
  await bench.say('area 0 to 2')
  await expect(bench.slider('n')).toHaveAttribute('aria-valuemax', '50')
  await bench.say('area 0 to 2 with 300 strips')
  await expect(bench.slider('n₂')).toHaveAttribute('aria-valuenow', '300')
  await expect(bench.slider('n₂')).toHaveAttribute('aria-valuemax', '500')
})

test('a dragged place stops at round values near the pointer, and with Alt nowhere', async ({
  page,
  bench,
}) => {
  await bench.button('a by 0.1, change').click()
  await page.getByRole('textbox', { name: 'a by' }).fill('0.001')
  await page.keyboard.press('Enter')
  const flag = bench.slider('Place a')
  const box = (await flag.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + 15]
  const plot = (await bench.lane('f').locator('svg[role=presentation]').boundingBox())!
  const perUnit = plot.width / 21.4
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 4 * perUnit + 3, y, { steps: 8 })
  expect(await bench.valueOf(bench.slider('a'))).toBe(4)
  await page.keyboard.down('Alt')
  await page.mouse.move(x + 4 * perUnit + 3.5, y)
  await page.mouse.move(x + 4 * perUnit + 3, y)
  const free = await bench.valueOf(bench.slider('a'))
  expect(free).not.toBe(4)
  expect(free).toBeCloseTo(4 + 3 / perUnit, 1)
  await page.keyboard.up('Alt')
  await page.mouse.up()
})

test('a place draws its point before any line hangs on it', async ({ page, bench }) => {
  await bench.open('f(x) = x^2/4 - 3')
  const ruler = page.getByTitle('Click to put a place here')
  const box = (await ruler.boundingBox())!
  await page.mouse.click(box.x + 0.75 * box.width, box.y + 20)
  await expect(bench.slider('Place a')).toBeVisible()
  await expect(bench.lane('f').locator('path.fill-rust')).toHaveCount(1)
})

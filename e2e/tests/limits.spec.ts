import { expect, test } from '../support/fixtures'

const broken = 'f(x) = (x^2 - 4)/(x - 2) if x < 2; 5 if x = 2; 1/(x - 2) otherwise'

test('a limit tells both sides, why, and shows open and filled spots and the asymptote', async ({
  page,
  bench,
}) => {
  await bench.open(broken)
  await bench.say('limit of f as x -> 2')
  const limit = 'Limit of f as x → 2 from both sides'
  await expect(bench.output(limit, 'limit')).toHaveText('no limit: the sides differ')
  await expect(bench.output(limit, 'from the left')).toHaveText('4')
  await expect(bench.output(limit, 'from the right')).toHaveText('no limit: grows without bound')
  await expect(bench.line(limit)).toContainText('close to 2 it is 1/(x − 2)')
  // What is open is drawn in the colour of the page, what is a value in its own.
  const lane = bench.lane('f')
  const open = lane.locator('[data-item$=".limit1"]')
  const filled = lane.locator('[data-item$=".value"]')
  await expect(open).toBeVisible()
  const [page_, own] = await Promise.all(
    [open, filled].map((spot) => spot.evaluate((e) => getComputedStyle(e).fill)),
  )
  expect(page_).not.toBe(own)
  const dash = lane.locator('[data-item$=".asymptote"]').first()
  await expect(dash).toHaveAttribute('stroke-dasharray', /\d/)
  // One side alone by its slot, the other place by typing.
  await bench.line(limit).getByRole('combobox').selectOption({ label: 'from the left' })
  const left = 'Limit of f as x → 2 from the left'
  await expect(bench.output(left, 'limit')).toHaveText('4')
  await bench.line(left).getByRole('button', { name: 'x → 2' }).click()
  await page.getByRole('textbox', { name: 'Place' }).fill('∞')
  await page.keyboard.press('Enter')
  await expect(bench.output('Limit of f as x → ∞', 'limit')).toHaveText('0')
})

test('continuity is answered condition by condition and follows its place', async ({
  page,
  bench,
}) => {
  await bench.open(broken)
  await bench.say('is f continuous at 2?')
  const asked = 'Is f continuous and differentiable at x = 2?'
  await expect(bench.output(asked, 'continuous')).toHaveText('no')
  await expect(bench.line(asked)).toContainText('f has a value there: f(2) = 5.')
  await bench.line(asked).getByRole('button', { name: 'x = 2' }).click()
  await page.getByRole('textbox', { name: 'Place' }).fill('1')
  await page.keyboard.press('Enter')
  const smooth = 'Is f continuous and differentiable at x = 1?'
  await expect(bench.output(smooth, 'continuous')).toHaveText('yes')
  await expect(bench.output(smooth, 'differentiable')).toHaveText('yes')
  await expect(bench.line(smooth)).toContainText('f has the slope 1 there.')
})

test('a hole filled with its limit has a tangent, and a rate that lists it once', async ({
  bench,
}) => {
  await bench.open('f(x) = (x^2 - 4)/(x - 2) if x != 2; 4 if x = 2')
  await expect(bench.working).toContainText('the pieces meet smoothly')
  await bench.say('tangent at 2')
  await expect(bench.output('Tangent to f at x = 2', 'slope')).toHaveText('1')
})

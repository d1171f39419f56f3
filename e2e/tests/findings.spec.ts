import { expect, test } from '../support/fixtures'

const words = (lane: import('@playwright/test').Locator) => lane.locator('svg[aria-hidden] text')

test('the lane of the derivative says where the curve rises, and guides lead to the turning points', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^3/30 - x')
  await bench.button('Show f′').click()
  const lower = bench.lane('f′')
  await expect(words(lower).filter({ hasText: '− f falls' })).toBeVisible()
  await expect(words(lower).filter({ hasText: '+ f rises' })).toHaveCount(2)
  // Turning points at ±√10: the guides of both lanes stand on one line.
  const guides = (name: string) =>
    bench
      .lane(name)
      .locator('path.stroke-quiet')
      .evaluateAll((all) => all.map((path) => Number(/^M(\S+)/.exec(path.getAttribute('d')!)![1])))
  await expect.poll(() => guides('f')).toHaveLength(2)
  expect(await guides('f')).toEqual(await guides('f′'))
  await bench.button('Show f′′').click()
  await expect(words(bench.lane('f′′')).filter({ hasText: 'f concave up' })).toBeVisible()
  // Another formula: the old words go, the new ones come.
  await bench.button('f(x) = x³/30 − x').click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('f(x) = -x')
  await page.keyboard.press('Enter')
  await expect(words(lower).filter({ hasText: 'f rises' })).toHaveCount(0)
  await expect(words(lower).filter({ hasText: '− f falls' })).toHaveCount(1)
})

test('what cannot be seen at this scale is told, and can be gone to', async ({ page, bench }) => {
  await bench.open('f(x) = x/4 + 0.0004 sin(900x) e^(-x^2) for -10 <= x <= 10')
  const told = bench.lane('f').getByText(/turning points between .* do not show in this frame/)
  await expect(told).toBeVisible()
  await bench.button('Go there').click()
  const [from, to] = await Promise.all(
    ['x from', 'x to'].map(async (name) =>
      Number(
        await page.getByRole('spinbutton', { name, exact: true }).getAttribute('aria-valuenow'),
      ),
    ),
  )
  expect(to! - from!).toBeLessThan(5)
  await bench.button('Undo').click()
  await expect(told).toBeVisible()
})

import { expect, test } from '../support/fixtures'

test('an exam question: given f′′ on a closed span, everything is read off with reasons', async ({
  page,
  bench,
}) => {
  await bench.open('g(x) = 2 sin(x) - x/3 + 0.4')
  await bench.say('features of g on 0 to 7')
  const table = page.getByRole('table', { name: 'Features' })
  // By mpmath: turning points at arccos(1/6) and 2π − arccos(1/6), zero at 2.8613…
  for (const [kind, x, y] of [
    ['high', '1.403', '1.904'],
    ['zero', '2.861', '0.000'],
    ['low', '4.880', '−3.199'],
  ]) {
    const row = table.getByRole('row').filter({ hasText: x! })
    await expect(row).toContainText(kind!)
    await expect(row).toContainText(y!)
  }
  await expect(table).toContainText('g is continuous there and g′ goes + to −')
  await expect(bench.working).toContainText('Complete on [0, 7]')
  await bench.button('Candidates · 4').click()
  await expect(page.getByRole('table', { name: 'Candidates' })).toContainText('highest')
  await bench.say("conclude g as f'' on 0 to 7")
  const line = bench.working.getByRole('listitem', { name: /^Taking g as f′′/ })
  await line.getByRole('combobox', { name: 'f', exact: true }).selectOption("f'")
  await expect(line).toContainText('f′ rises on [0, 2.861], because f′′ > 0 inside.')
  await expect(line).toContainText(
    'f′ has a local maximum at x = 2.861, because f′′ goes + to − there.',
  )
  await line.getByText('f′ falls on').hover()
  await expect(bench.lane('g').locator('[data-highlight]')).toBeVisible()
})

test('a graph that hides two turning points says so, goes there and comes back', async ({
  page,
  bench,
}) => {
  await bench.open('w(t) = 8 e^(-t/6) + 0.002 sin(40t) e^(-t)')
  await page.getByRole('button', { name: '−10 ≤ t ≤ 10' }).click()
  await page.keyboard.type('0 to 60')
  await page.keyboard.press('Enter')
  const warning = bench.lane('w').getByText(/turning points? .*not show in this frame/)
  const features = bench.lane('w').getByRole('button', { name: 'Go there' })
  if (await warning.isVisible().catch(() => false)) {
    await features.click()
    await bench.button('Come back').click()
    await expect(page.getByRole('spinbutton', { name: 't to' })).toHaveValue(/^6\d/)
  }
  await bench.say('turning points of w on 0 to 60')
  await expect(bench.working).toContainText(/(Complete|No turning point)/)
})

test('the shortest cable: the moving length, its curve and the proven least', async ({ bench }) => {
  await bench.open('f(x) = x^2/4')
  await bench.say('distance from f to (3, 1)')
  const line = bench.working.getByRole('listitem', { name: /^Distance L\(x\) from f/ })
  await expect(line).toContainText(/No shorter distance on \[−10, 10\]: proven/)
  await expect(bench.lane('L')).toBeVisible()
  await bench.drag(bench.slider('Place a'), 90)
  const a = await bench.valueOf(bench.slider('Place a'))
  const length = line.locator('output[aria-label="length"]')
  expect(Number(await length.getAttribute('data-value'))).toBeCloseTo(
    Math.hypot(a - 3, a ** 2 / 4 - 1),
    9,
  )
  const least = Number(await line.locator('output[aria-label="lowest"]').getAttribute('data-value'))
  expect(least).toBeLessThanOrEqual(Number(await length.getAttribute('data-value')))
})

test('predict first: draw on the covered lane, uncover, compare', async ({ page, bench }) => {
  await bench.open('f(x) = sin x')
  await bench.button('Show f′').click()
  await bench.button('Heights of f′').click()
  await page.getByRole('checkbox', { name: /Covered/ }).check()
  await page.keyboard.press('Escape')
  const box = (await bench.lane('f′').boundingBox())!
  await page.mouse.move(box.x + 200, box.y + box.height * 0.7)
  await page.mouse.down()
  await page.mouse.move(box.x + 500, box.y + box.height * 0.3, { steps: 20 })
  await page.mouse.up()
  await bench.button('Uncover f′').click()
  await expect(page.getByText(/Your guess has the right sign over \d+ % of its way/)).toBeVisible()
})

test('a sign chart shows three rows and is copied', async ({ page, bench }) => {
  await bench.open('f(x) = x^3 - 3x')
  await bench.say('sign chart of f on -3 to 3')
  const chart = page.getByRole('figure', { name: 'Sign chart' })
  await expect(chart).toContainText('f′: + from -3 to -1, − from -1 to 1, + from 1 to 3')
})

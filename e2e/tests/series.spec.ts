import { expect, test } from '../support/fixtures'

test('a Taylor polynomial in one action; its order is played, its error told at a place', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = cos x for -6 <= x <= 6')
  await bench.say('taylor polynomial of f at 0, order 4')
  const sentence = 'Taylor polynomial of f at x = 0, order 4'
  await expect(bench.output(sentence, 'formula')).toHaveText('y = 1 − x²/2 + x⁴/24')
  const line = bench.line(sentence)
  await expect(line).toContainText('converges everywhere')
  const graph = bench.lane('f').locator('[data-item$="polynomial"]')
  const drawn = await graph.getAttribute('d')
  await line.getByRole('button', { name: 'Error under' }).click()
  // |cos x − P| = 0.001 where x⁶/720 is about that: at 0.95.
  await expect(bench.working).toContainText(
    /\|error\| stays under 0.001 for x from −0\.9\d* to 0\.9\d*: proven/,
  )
  await bench.working.getByRole('button', { name: 'Play the order' }).click()
  const order = bench.slider('n')
  await expect.poll(() => bench.valueOf(order)).toBeGreaterThan(1)
  await bench.button('Pause n').click()
  await expect.poll(() => graph.getAttribute('d')).not.toBe(drawn)
  await order.press('End')
  await bench.working.getByRole('button', { name: 'Terms · 13' }).click()
  const rows = bench.working.getByRole('table', { name: 'Terms' }).getByRole('row')
  await expect(rows.nth(1)).toContainText('1')
  await bench.working.getByRole('button', { name: 'All orders' }).click()
  await expect(bench.lane('f').locator('[data-item*="order@"]').first()).toHaveAttribute('d', /M/)
  await page.keyboard.press('Control+z')
})

test('an order that is too high, and a kink, are told with a way out', async ({ bench }) => {
  await bench.open('f(x) = |x| for -2 <= x <= 2')
  await bench.say('taylor polynomial of f at 0, order 2')
  await expect(bench.working.getByRole('alert')).toContainText('no slope at x = 0')
  await bench.say('taylor polynomial of f at 1, order 41')
  await expect(bench.working.getByRole('alert').last()).toContainText('a whole number from 0 to 40')
})

test('an integral is added up term by term beside its value', async ({ bench }) => {
  await bench.open('f(x) = e^(-x^2) for 0 <= x <= 2')
  await bench.say('integrate f by series from 0 to 1')
  const sentence = 'Integral of f over [0, 1] by its series at x = 0, order 8'
  // 1 − 1/3 + 1/10 − 1/42 + 1/216, and √π erf(1)/2.
  await expect(bench.output(sentence, 'sum')).toHaveText('0.747487')
  await expect(bench.output(sentence, 'exact')).toHaveText('0.746824')
  await expect(bench.line(sentence)).toContainText('the error is at most the next one, 7.58·10⁻⁴')
})

test('a family of tangents in two actions, coloured, with another colour by expression', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2/4 for -4 <= x <= 4')
  await bench.say('tangents to f for x from -3 to 3, 120 of them')
  const sentence = 'Tangents to f for x from −3 to 3, 120 of them'
  await expect(bench.output(sentence, 'drawn')).toHaveText('120')
  const lines = bench.lane('f').locator('[data-item*="family"]')
  await expect.poll(() => lines.count()).toBeGreaterThan(20)
  const colour = () => lines.first().evaluate((e) => getComputedStyle(e).stroke)
  const kelp = await colour()
  const line = bench.line(sentence)
  await line.getByRole('button', { name: 'Plum, ochre, kelp' }).click()
  await expect.poll(colour).not.toBe(kelp)
  await line.locator('summary', { hasText: 'How they are drawn' }).click()
  const hue = line.getByRole('textbox', { name: /^hue by x/ })
  await hue.fill('60x + 180')
  await hue.press('Enter')
  // At x = −3 the hue is 0: red.
  await expect.poll(colour).toMatch(/^rgb\((1[5-9]\d|2\d\d), (\d{1,2}), \2\)$/)
  await line.getByRole('button', { name: 'Envelope' }).click()
  await expect(line).toContainText('Their envelope is f itself')
  await bench.say('normals to f, 40 of them')
  const normals = bench.working.getByRole('listitem').nth(2)
  await normals.getByRole('button', { name: 'Envelope' }).click()
  await expect(bench.lane('f').locator('[data-item$="envelope"]')).toHaveAttribute('d', /M/)
  await page.setViewportSize({ width: 390, height: 844 })
  await expect(lines.first()).toHaveAttribute('d', /M/)
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390)
})

test('a family goes out as a picture in its own colours, without a ground', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2/4 for -4 <= x <= 4')
  await bench.say('tangents to f for x from -3 to 3, 120 of them')
  await expect(bench.lane('f').locator('[data-item*="family"]').first()).toHaveAttribute('d', /M/)
  const download = page.waitForEvent('download')
  await bench.button('Hand on').click()
  await page.getByRole('menuitem', { name: 'Picture as SVG' }).click()
  const path = await (await download).path()
  const { readFileSync } = await import('node:fs')
  const text = readFileSync(path, 'utf8')
  const colours = new Set([...text.matchAll(/stroke="(#[0-9a-f]{6})"/g)].map(([, c]) => c))
  // From kelp to rust in many shades, the same ends as on the screen.
  expect(colours.size).toBeGreaterThan(25)
  expect(colours).toContain('#0f6b5c')
  expect(colours).toContain('#b4471f')
})

import { expect, test } from '../support/fixtures'

// 4s(s² − 4) + 1 = 0 at −2.0306, 0.0626 and 1.9680, by numpy.roots.
const twoValleys = 'p(s) = (s^2 - 4)^2 + s for -3.2 <= s <= 3.2'
const sentence = 'Search p for a low point from s = 3 by simplex'

test('two actions from an empty study: a search, its walk, and what lies lower', async ({
  page,
  bench,
}) => {
  await bench.open(twoValleys)
  await bench.say('search p from 3')
  await expect(bench.output(sentence, 's')).toHaveText('1.968')
  await expect(bench.output(sentence, 'value')).toHaveText('1.984')
  const line = bench.line(sentence)
  await expect(line).toContainText(
    'A low point, and not the lowest: s ≈ −2.031 lies ≈ 4.000 lower.',
  )
  const accepted = bench.lane('p').locator('[data-item$="walk.accepted"]')
  await expect(accepted).toHaveAttribute('d', /M/)

  // The start is dragged on the ruler: over the crest the other valley is found.
  const flag = page.getByRole('slider', { name: 'Place s = 3' })
  const box = (await bench.lane('p').boundingBox())!
  await bench.drag(flag, -box.width * 0.66)
  const moved = bench.working.getByRole('listitem', {
    name: /^Search p for a low point from s = −/,
  })
  await expect(moved).toContainText('The lowest on [−3.2, 3.2]: proven.')

  // A low point becomes a high one by the slot, and goes back.
  await moved.getByRole('combobox', { name: 'a low point' }).selectOption('high')
  await expect(bench.working).toContainText(/A high point, and not the highest|The highest on/)
})

test('the walk is played and stepped by the transport, and its probes are in a table', async ({
  page,
  bench,
}) => {
  await bench.open(twoValleys)
  await bench.say('search p from 3')
  const line = bench.line(sentence)
  await line.getByRole('button', { name: 'Probes · 56' }).click()
  const rows = line.getByRole('table', { name: 'Probes' }).getByRole('row')
  await expect(rows.nth(1).getByRole('cell').first()).toHaveText('1')
  await expect(rows.nth(1)).toContainText('accepted')
  await line.getByRole('button', { name: 'Play the walk' }).click()
  const probe = bench.slider('k')
  await expect.poll(() => bench.valueOf(probe)).toBeGreaterThan(2)
  await bench.button('Pause k').click()
  const at = await bench.valueOf(probe)
  await expect(line.locator('output[aria-label=probe]')).toHaveText(`${at} of 56`)
  await bench.button('Step forward').click()
  await expect.poll(() => bench.valueOf(probe)).toBe(at + 1)
  const now = bench.lane('p').locator('[data-item$="walk.now"]')
  await expect(now).toHaveAttribute('d', /M/)
  await probe.press('End')
  await expect(now).toHaveCount(0)
  await page.keyboard.press('Control+z')
})

test('searches side by side, their settings, many starts on the ruler', async ({ page, bench }) => {
  await bench.open(twoValleys)
  await bench.say('search p from 3')
  const search = bench.working.getByRole('listitem').nth(1)
  await search.locator('summary', { hasText: 'Side by side' }).click()
  await search.getByRole('checkbox', { name: 'population' }).check()
  await search.getByRole('checkbox', { name: 'gradient' }).check()
  const table = search.getByRole('table', { name: 'Searches' })
  await expect(table.getByRole('row')).toHaveCount(4)
  await expect(search.getByRole('button', { name: /^Probes, / })).toHaveCount(3)
  // A rate that is too large leaves the span, and says so with a way out.
  await expect(search.getByRole('alert')).toContainText('give a smaller rate')
  await search.locator('summary', { hasText: 'How it searches' }).click()
  const rate = search.getByRole('textbox', { name: 'rate', exact: true })
  await rate.fill('0.02')
  await rate.press('Enter')
  await expect(search.getByRole('alert')).toHaveCount(0)
  await search.getByRole('button', { name: 'Many starts' }).click()
  await expect(search).toContainText(
    /Starts from s\s=\s−3\.2\sto\s≈\s\S+ end at s\s≈\s−2\.031, the lowest\./,
  )
  const starts = page.locator('[data-item*=".starts."]')
  await expect.poll(() => starts.count()).toBeGreaterThan(1)
  await search.getByRole('button', { name: 'Best value against evaluations' }).click()
  await expect(search.locator('canvas')).toBeVisible()
})

test('on a phone a search is begun, read and moved', async ({ page, bench }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await bench.open(twoValleys)
  await bench.say('search p from 3')
  await expect(bench.output(sentence, 's')).toHaveText('1.968')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390)
})

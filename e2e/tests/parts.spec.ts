import { expect, test } from '../support/fixtures'

const flood = 'q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10'

test('a part is switched off and on, on its heading and on the deck, with what hangs on it', async ({
  page,
  bench,
}) => {
  await bench.open(flood)
  await bench.say('part Slopes')
  await bench.say('tangent')
  await bench.say('part Sums')
  await bench.say('area 1 to 7')
  await expect(page.getByRole('listitem', { name: 'Part A: Slopes' })).toContainText('Tangent to')
  await expect(page.getByRole('slider', { name: 'Span 1 from' })).toBeVisible()

  const strips = page.locator('path[data-item^="line3."]')
  await expect(strips.first()).toBeAttached()
  await page.getByRole('switch', { name: 'Part B' }).click()
  await expect(page.getByRole('switch', { name: 'Part B' })).not.toBeChecked()
  await expect(page.locator('output[aria-label=sum]')).toHaveCount(0)
  await expect(strips).toHaveCount(0)
  await expect(page.getByRole('slider', { name: 'Span 1 from' })).toHaveCount(0)
  await expect(page.locator('output[aria-label=slope]')).toBeVisible()

  await page.getByRole('button', { name: 'Switch of part B on the deck' }).click()
  const deck = page.getByRole('group', { name: 'Deck switches' })
  await deck.getByRole('switch', { name: 'Sums' }).press('Space')
  await expect(page.getByRole('switch', { name: 'Part B' })).toBeChecked()
  await expect(page.locator('output[aria-label=sum]')).toHaveText('29.008')

  // A condition that names a part, by the keyboard; what is off is told where it stands.
  await bench.line('Tangent to q at t = a').hover()
  await page.getByRole('button', { name: 'Condition of line 2' }).click()
  await page.getByRole('textbox', { name: 'Shown while' }).pressSequentially('part B and a < 6')
  await page.keyboard.press('Enter')
  await deck.getByRole('switch', { name: 'Sums' }).click()
  await expect(bench.line('Tangent to q at t = a')).toContainText('not shown now')
  await expect(page.locator('output[aria-label=slope]')).toHaveCount(0)
  await deck.getByRole('switch', { name: 'Sums' }).click()
  await expect(page.locator('output[aria-label=slope]')).toBeVisible()

  // Deleting the part asks about its lines; the condition that names it says so, and is mended.
  await page.getByRole('button', { name: 'Remove part B' }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(bench.line(/^Area under q/)).toBeVisible()
  await expect(bench.line('Tangent to q at t = a').getByRole('alert')).toContainText(
    'there is no part B any more',
  )
  await page.getByRole('button', { name: 'Drop it' }).click()
  await expect(page.getByRole('button', { name: 'a < 6', exact: true })).toBeVisible()
  await bench.saved()
  await page.reload()
  await expect(page.getByRole('button', { name: 'a < 6', exact: true })).toBeVisible()
})

test('a condition is followed while its slider moves, in the same frame as the curve', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = t^3 - 3t for -3 ≤ t ≤ 3')
  await bench.say('tangent')
  await bench.line('Tangent to q at t = a').hover()
  await page.getByRole('button', { name: 'Condition of line 2' }).click()
  const field = page.getByRole('textbox', { name: 'Shown while' })
  // What cannot be read is told while it is typed, and nothing typed is lost.
  await field.pressSequentially('q falls on a')
  await expect(page.getByRole('alert')).toContainText('claims nothing')
  await expect(page.locator('.formula-problem')).toHaveText('q falls on a')
  for (let i = 0; i < 4; i++) await page.keyboard.press('Backspace')
  await page.keyboard.type('at a')
  await page.keyboard.press('Enter')
  const slope = page.locator('output[aria-label=slope]')
  await expect(slope).toHaveText('−3')
  const place = bench.slider('Place a')
  await place.focus()
  // From 0 by steps of 0.1: at 1 q has its low point, and falls no more.
  for (let i = 0; i < 9; i++) await page.keyboard.press('ArrowRight')
  await expect(slope).toHaveText('−0.57')
  await expect(page.locator('path[data-item="line2.tangent"]')).toHaveCount(1)
  await page.keyboard.press('ArrowRight')
  await expect(slope).toHaveCount(0)
  await expect(page.locator('path[data-item="line2.tangent"]')).toHaveCount(0)
  await page.keyboard.press('Home')
  await expect(slope).toHaveCount(0)

  await page.getByRole('button', { name: 'q falls at a', exact: true }).click()
  await field.fill('a > 20')
  await page.keyboard.press('Enter')
  await expect(page.getByText('never shown for a from −3 to 3')).toBeVisible()
})

test('lines move into and out of parts by keys and by dragging', async ({ page, bench }) => {
  await bench.open(flood)
  await bench.say('tangent')
  await bench.say('value of q at 2')
  await bench.say('part Places')
  const part = page.getByRole('listitem', { name: 'Part A: Places' })
  await expect(part).toContainText('No line is under it yet')

  const handle = page.getByRole('button', { name: 'Move line 3', exact: true })
  await handle.focus()
  await page.keyboard.press('Space')
  await page.waitForTimeout(150)
  await page.keyboard.press('ArrowDown')
  await page.waitForTimeout(150)
  await page.keyboard.press('Space')
  await expect(part.getByRole('listitem', { name: 'Value of q at t = 2' })).toBeVisible()

  const from = (await page.getByRole('button', { name: 'Move line 2', exact: true }).boundingBox())!
  const to = (await part.getByRole('listitem', { name: 'Value of q at t = 2' }).boundingBox())!
  await page.mouse.move(from.x + 6, from.y + 6)
  await page.mouse.down()
  await page.mouse.move(from.x + 6, from.y + 30, { steps: 4 })
  await page.mouse.move(from.x + 6, to.y + to.height / 2, { steps: 8 })
  await page.mouse.up()
  await expect(part.getByRole('listitem', { name: 'Tangent to q at t = a' })).toBeVisible()
  await page.getByRole('button', { name: 'Fold part A' }).click()
  await expect(part).toContainText('2 lines')
  await expect(part.getByRole('listitem')).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(part.getByRole('listitem')).toHaveCount(1)
})

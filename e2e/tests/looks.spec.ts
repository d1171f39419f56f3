import { expect, test } from '../support/fixtures'

test('a line gets a marker, a width and words, and keeps them after a reload', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  await bench.say('tangent')
  await bench.line('Tangent to q at t = a').hover()
  await bench.button('Look of line 2').click()
  await page.getByRole('combobox', { name: 'Marker', exact: true }).selectOption('square')
  const width = page.getByRole('spinbutton', { name: 'Marker width of line 2' })
  await width.fill('24')
  await page.keyboard.press('Enter')
  const words = page.getByRole('textbox', { name: 'Words beside line 2' })
  await words.fill('boat')
  await words.press('Enter')
  await page.keyboard.press('Escape')
  const lane = bench.lane('q')
  await expect(lane.getByText('boat', { exact: true })).toBeVisible()
  // The square lies where the place stands, and rides along the curve with it.
  const marker = lane.locator('path.fill-rust')
  const before = (await marker.boundingBox())!
  expect(before.width).toBeGreaterThan(15)
  expect(Math.abs(before.width - before.height)).toBeLessThan(1)
  await bench.drag(bench.slider('Place a'), 120)
  const after = (await marker.boundingBox())!
  expect(after.x - before.x).toBeGreaterThan(100)
  await bench.saved()
  await page.reload()
  await expect(lane.getByText('boat', { exact: true })).toBeVisible()
  expect((await marker.boundingBox())!.x).toBeCloseTo(after.x, 0)
})

test('labels of features are dragged aside, moved by keys, hidden and put back', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  await bench.say('turning points of q')
  const lane = bench.lane('q')
  const label = bench.button('Label high 9.490 at t = 1.653')
  await expect(bench.button(/^Label (high|low)/)).toHaveCount(3)
  const before = (await label.boundingBox())!
  await page.mouse.move(before.x + before.width / 2, before.y + before.height / 2)
  await page.mouse.down()
  await page.mouse.move(before.x + before.width / 2 + 90, before.y + before.height / 2 + 70, {
    steps: 6,
  })
  await page.mouse.up()
  const after = (await label.boundingBox())!
  expect(Math.abs(after.x - before.x - 90)).toBeLessThan(4)
  expect(Math.abs(after.y - before.y - 70)).toBeLessThan(4)
  // The frame has stayed, and one undo takes the whole drag back.
  await expect(page.getByRole('spinbutton', { name: 't from' })).toHaveValue('−0.4')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => Math.round((await label.boundingBox())!.x - after.x)).toBe(8)
  await page.keyboard.press('Escape')
  await expect
    .poll(async () => Math.round((await label.boundingBox())!.x))
    .toBe(Math.round(before.x))
  await label.focus()
  await page.keyboard.press('Delete')
  await expect(label).toBeHidden()
  await expect(lane.getByText('high 9.490 at t = 1.653')).toBeHidden()
  // Its row still has the numbers; the look of the line has the way back.
  await expect(page.getByRole('table', { name: 'Features' })).toContainText('9.490')
  await bench.line(/^Turning points of q/).hover()
  await bench.button('Look of line 2').click()
  await page.getByRole('button', { name: 'Put all labels back' }).click()
  await expect(lane.getByText('high 9.490 at t = 1.653')).toBeVisible()
})

test('crowded labels keep off each other and off the curve', async ({ page, bench }) => {
  await bench.open('f(x) = sin(3x) + cos(5x)/2 for -4 ≤ x ≤ 4')
  await bench.say('turning points of f')
  const labels = bench.button(/^Label (high|low)/)
  await expect(labels.first()).toBeVisible()
  const boxes = await labels.evaluateAll((all) =>
    all.map((l) => {
      const { left, right, top, bottom } = l.getBoundingClientRect()
      // The handle is a little larger than its words.
      return { left: left + 4, right: right - 4, top: top + 4, bottom: bottom - 4 }
    }),
  )
  expect(boxes.length).toBeGreaterThan(4)
  for (const [i, a] of boxes.entries()) {
    for (const b of boxes.slice(i + 1)) {
      const apart = a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top
      expect(apart).toBe(true)
    }
  }
  await expect(page.getByRole('table', { name: 'Features' })).toBeVisible()
})

test('the buttons of a line do not lie over its sentence', async ({ page, bench }) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t + cos(2t)/5 for 0 ≤ t ≤ 10')
  await bench.say('tangent')
  const line = bench.line('Tangent to q at t = a')
  await line.hover()
  const remove = (await bench.button('Remove line 2').boundingBox())!
  const words = (await line.getByText('Tangent to').boundingBox())!
  expect(remove.y).toBeGreaterThanOrEqual(words.y + words.height)
  await bench.button('Hide line 2 in the picture').click()
  await expect(bench.lane('q').locator('[data-item^="line2."]')).toHaveCount(0)
  await bench.button('Show line 2 in the picture').click()
  await bench.button('Remove line 2').click()
  await expect(line).toBeHidden()
  await expect(page.getByText('1 line', { exact: true })).toBeVisible()
})

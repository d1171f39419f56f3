import { type Bench, expect, test } from '../support/fixtures'

const sentences = (bench: Bench) =>
  bench.working
    .getByRole('listitem')
    .evaluateAll((items) => items.map((item) => item.getAttribute('aria-label')).filter(Boolean))

test.beforeEach(async ({ bench }) => {
  await bench.open('f(x) = x^3 - 3x')
})

test('lines are put into another order by dragging their numbers and by keys', async ({
  page,
  bench,
}) => {
  await bench.say('value of f at 1')
  await bench.say('value of f at 2')
  const before = await sentences(bench)
  expect(before[1]).toBe('Value of f at x = 1')
  const [second, third] = [bench.button('Move line 2'), bench.button('Move line 3')]
  const [from, to] = [(await third.boundingBox())!, (await second.boundingBox())!]
  await page.mouse.move(from.x + 5, from.y + 8)
  await page.mouse.down()
  await page.mouse.move(to.x + 5, to.y - 4, { steps: 12 })
  await page.mouse.up()
  await expect
    .poll(() => sentences(bench))
    .toEqual([before[0], 'Value of f at x = 2', 'Value of f at x = 1'])
  await bench.button('Move line 3').focus()
  await page.keyboard.press('Space')
  await page.waitForTimeout(100)
  await page.keyboard.press('ArrowUp')
  await page.waitForTimeout(300)
  await page.keyboard.press('Space')
  await expect.poll(() => sentences(bench)).toEqual(before)
  await bench.button('Undo').click()
  await expect.poll(async () => (await sentences(bench))[1]).toBe('Value of f at x = 2')
})

test('the derivative opens its lane, and the answer stands first under a sentence', async ({
  bench,
}) => {
  await expect(bench.lane('f′')).toBeHidden()
  await bench.say('derivative')
  await expect(bench.lane('f′')).toBeVisible()
  await bench.say('tangent to f at 2')
  const line = bench.line('Tangent to f at x = 2')
  const sizes = await line
    .getByRole('status')
    .evaluateAll((all) =>
      all.map((e) => [e.getAttribute('aria-label'), parseFloat(getComputedStyle(e).fontSize)]),
    )
  expect(sizes[0]![0]).toBe('slope')
  for (const [, size] of sizes.slice(1)) expect(sizes[0]![1]).toBeGreaterThan(size as number)
  // Names on the left, numbers in one column.
  const lefts = await line
    .getByRole('status')
    .evaluateAll((all) => all.map((e) => Math.round(e.getBoundingClientRect().left)))
  expect(new Set(lefts).size).toBe(1)
})

test('the buttons of a line cover nothing and say what they do', async ({ page, bench }) => {
  await bench.say('tangent to f at 1')
  const line = bench.line('Tangent to f at x = 1')
  await line.hover()
  const covered = await line.evaluate((item) => {
    const boxes = [...item.querySelectorAll('button, output')].map((e) => ({
      name: e.getAttribute('aria-label') ?? e.textContent,
      box: e.getBoundingClientRect(),
    }))
    return boxes.flatMap((a, i) =>
      boxes.slice(i + 1).flatMap((b) => {
        const apart =
          a.box.right <= b.box.left + 0.5 ||
          b.box.right <= a.box.left + 0.5 ||
          a.box.bottom <= b.box.top + 0.5 ||
          b.box.bottom <= a.box.top + 0.5
        return apart ? [] : [`${a.name} / ${b.name}`]
      }),
    )
  })
  expect(covered).toEqual([])
  for (const name of ['Remove line 2', 'Look of line 2', 'Hide line 2 in the picture']) {
    await expect(bench.button(name)).toHaveAttribute('title', /.+/)
  }
  await bench.button('Look of line 2').click()
  await page.getByRole('radio', { name: 'plum' }).click()
  await page.keyboard.press('Escape')
  await expect(bench.lane('f').locator('path.stroke-plum')).not.toHaveCount(0)
})

test('a wide table scrolls sideways beside its first column, and opens larger', async ({
  page,
  bench,
}) => {
  await bench.say('table of f over -2 to 2 by 0.5')
  const line = bench.working.getByRole('listitem', { name: /^Table of f/ })
  await line.locator('summary').click()
  for (const box of await line.getByRole('checkbox').all()) await box.check()
  const table = line.getByRole('table')
  const scroller = table.locator('[role=presentation]')
  const [inner, outer] = await scroller.evaluate((e) => [e.scrollWidth, e.clientWidth])
  if (inner > outer) {
    await scroller.evaluate((e) => e.scrollTo({ left: 400 }))
    const first = (await table.getByRole('cell').first().boundingBox())!
    const box = (await scroller.boundingBox())!
    expect(Math.abs(first.x - box.x)).toBeLessThan(2)
  }
  await line.getByRole('button', { name: 'Larger' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('table')).toBeVisible()
  expect((await dialog.getByRole('table').boundingBox())!.width).toBeGreaterThan(600)
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
})

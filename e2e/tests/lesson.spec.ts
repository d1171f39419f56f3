import { expect, test } from '../support/fixtures'

const flood = 'q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10'

test('a lesson of five steps is made in few actions, and led by keys', async ({ page, bench }) => {
  await bench.open(flood)
  await bench.say('tangent')
  const a = bench.slider('a')
  let actions = 0
  const steps = page.getByRole('list', { name: 'Steps' })
  for (const value of ['1', '3', '5', '7', '9']) {
    await a.press('Enter')
    await page.getByRole('textbox', { name: /^a/ }).fill(value)
    await page.keyboard.press('Enter')
    await expect(a).toHaveAttribute('aria-valuenow', value)
    await page.getByRole('button', { name: 'Keep as step' }).click()
    actions += 2
  }
  expect(actions).toBeLessThanOrEqual(12)
  await expect(steps.getByRole('listitem')).toHaveCount(5)

  await page.locator('body').press('[')
  await expect(a).toHaveAttribute('aria-valuenow', '9')
  await page.keyboard.press('[')
  await expect(a).toHaveAttribute('aria-valuenow', '7')
  // By calculus: q′(7) = 3.6 cos 6.3 − 0.3.
  await expect(page.locator('output[aria-label=slope]').first()).toHaveAttribute(
    'data-value',
    new RegExp(`^${(3.6 * Math.cos(6.3) - 0.3).toFixed(6)}`),
  )
  await expect(steps.getByRole('button', { name: 'Step 4', exact: true })).toHaveAttribute(
    'aria-current',
    'step',
  )
  await expect(page.locator('[aria-live=polite]')).toContainText(/Step 4 of 5: Step 4/)
  await page.keyboard.press(']')
  await expect(a).toHaveAttribute('aria-valuenow', '9')
})

test('a value belongs to the step that is open, a line to all; undo goes back across steps', async ({
  page,
  bench,
}) => {
  await bench.open(flood)
  await bench.say('tangent')
  const a = bench.slider('a')
  const go = (name: string) =>
    page.getByRole('list', { name: 'Steps' }).getByRole('button', { name, exact: true }).click()
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await go('Step 1')
  await bench.drag(a, 60)
  const first = await bench.valueOf(a)
  expect(first).toBeGreaterThan(5)
  await go('Step 2')
  await expect(a).toHaveAttribute('aria-valuenow', '5')
  await bench.say('value of q at 2')
  await go('Step 1')
  await expect(a).toHaveAttribute('aria-valuenow', String(first))
  await expect(bench.line('Value of q at t = 2')).toBeVisible()
  // Closed, the study has its own value.
  await go('Step 1')
  await expect(a).toHaveAttribute('aria-valuenow', '5')
  await expect(page.locator('[aria-current=step]')).toHaveCount(0)

  await page.keyboard.press('Control+z')
  await expect(bench.line('Value of q at t = 2')).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Step 2', exact: true })).toHaveAttribute(
    'aria-current',
    'step',
  )
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: 'Step 1', exact: true })).toHaveAttribute(
    'aria-current',
    'step',
  )
  await expect(a).toHaveAttribute('aria-valuenow', '5')
  await bench.saved()
  await page.reload()
  await expect(page.getByRole('list', { name: 'Steps' }).getByRole('listitem')).toHaveCount(2)
})

test('steps are renamed, moved by keys and by dragging, duplicated and removed', async ({
  page,
  bench,
}) => {
  await bench.open(flood)
  await bench.say('tangent')
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Keep as step' }).click()
  const list = page.getByRole('list', { name: 'Steps' })
  const titles = async () =>
    (await list.getByRole('listitem').allInnerTexts()).map((t) => t.replace(/^\d+\s*/, ''))
  await list.getByRole('button', { name: 'Step 2', exact: true }).click()
  await page.getByRole('button', { name: 'About this step' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill('The middle')
  await page.getByRole('textbox', { name: 'Question' }).fill('What is the slope?')
  await page.keyboard.press('Escape')
  await expect.poll(titles).toEqual(['Step 1', 'The middle', 'Step 3'])
  await page.getByRole('button', { name: 'Move number 2' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/^(?:The middle is held|At The middle)$/)).toBeAttached()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText('At Step 3')).toBeAttached()
  await page.keyboard.press('Space')
  await expect.poll(titles).toEqual(['Step 1', 'Step 3', 'The middle'])
  const handle = page.getByRole('button', { name: 'Move number 1', exact: true })
  const last = (await page.getByRole('button', { name: 'The middle', exact: true }).boundingBox())!
  const from = (await handle.boundingBox())!
  await page.mouse.move(from.x + 8, from.y + 12)
  await page.mouse.down()
  await page.mouse.move(from.x + 40, from.y + 12, { steps: 4 })
  await page.mouse.move(last.x + last.width - 10, last.y + 12, { steps: 8 })
  await page.mouse.up()
  await expect.poll(titles).toEqual(['Step 3', 'The middle', 'Step 1'])
  await page.getByRole('button', { name: 'About this step' }).click()
  await page.getByRole('button', { name: 'Duplicate' }).click()
  await expect.poll(titles).toEqual(['Step 3', 'The middle', 'The middle again', 'Step 1'])
  await page.getByRole('button', { name: 'Remove step' }).click()
  await expect.poll(titles).toEqual(['Step 3', 'The middle again', 'Step 1'])
})

test('a step whose slider and lane are gone says so, shows the rest, and forgets them when asked', async ({
  page,
  bench,
}) => {
  await bench.open(flood)
  await bench.say('tangent')
  await bench.say('let r(t) = 9 - t/2')
  await page.getByRole('button', { name: 'Show r′', exact: true }).click()
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await bench.line(/^Let r\(t\)/).hover()
  await page.getByRole('button', { name: 'Remove line 3' }).click()
  await bench.line('Tangent to q at t = a').hover()
  await page.getByRole('button', { name: 'Remove line 2' }).click()
  await page.getByRole('button', { name: 'Step 1', exact: true }).click()
  const told = page.getByRole('status').filter({ hasText: 'gone; the rest' })
  await expect(told).toContainText('Slider a')
  await expect(told).toContainText('curve r')
  await expect(bench.lane('q')).toBeVisible()
  await page.getByRole('button', { name: 'Forget them' }).click()
  await expect(told).toHaveCount(0)
  // Nothing was lost before that: undo has it told again.
  await page.keyboard.press('Control+z')
  await expect(told).toBeVisible()
})

test('sliders in turn stop at a condition, off their steps, and the frame stays still', async ({
  page,
  bench,
}) => {
  await bench.open(flood)
  await bench.say('tangent at a')
  await bench.say('area under q over 0 to 2')
  await page.getByRole('button', { name: /moves there and back/ }).click()
  await page.getByRole('checkbox', { name: 'n moves' }).check()
  await page.getByRole('combobox', { name: 'How a moves' }).selectOption('once')
  await page.getByRole('combobox', { name: 'How n moves' }).selectOption('once')
  await page.getByRole('spinbutton', { name: 'Pace of a' }).fill('1')
  await page.getByRole('spinbutton', { name: 'Pace of n' }).fill('0.5')
  await page.getByRole('spinbutton', { name: 'Turn of n' }).fill('2')
  const stop = page.getByRole('textbox', { name: 'Stops when, a' })
  await stop.fill('q@(a) = 0')
  await stop.press('Enter')
  await expect(page.getByRole('alert').filter({ hasText: /@|read|character/ })).toBeVisible()
  await stop.fill("q'(a) = 0")
  await stop.press('Enter')
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(
    page.getByRole('button', { name: /^first a goes once.*then n goes once/ }),
  ).toBeVisible()
  const frame = () => page.getByRole('spinbutton', { name: 't from' }).inputValue()
  const before = await frame()
  await page.getByRole('button', { name: 'Play a and n' }).click()
  await expect(bench.slider('n')).toHaveAttribute('aria-valuenow', '50', { timeout: 20_000 })
  // By hand: cos(0.9t) = 1/12. From the middle on the next one is 2π − arccos(1/12) and so on.
  const zeros = [1, -1, 3].map((k) =>
    k === 1
      ? Math.acos(1 / 12) / 0.9
      : k === -1
        ? (2 * Math.PI - Math.acos(1 / 12)) / 0.9
        : (2 * Math.PI + Math.acos(1 / 12)) / 0.9,
  )
  const value = await bench.valueOf(bench.slider('a'))
  expect(Math.min(...zeros.map((z) => Math.abs(z - value)))).toBeLessThan(1e-9)
  await expect(page.getByRole('button', { name: /^a = ≈ \d\.\d+, enter exactly/ })).toBeVisible()
  expect(await frame()).toBe(before)
})

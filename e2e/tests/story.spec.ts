import { expect, test } from '../support/fixtures'

test.describe('with a browser of its own', () => {
  test.use({ ownPage: true })

  test('type a function, ride a tangent along it, find it again after a restart', async ({
    page,
    bench,
    ownServer,
  }) => {
    await bench.open('q(t) = t^2 / 4 - 3', ownServer.url)
    await expect(bench.line('Let q(t) = t²/4 − 3')).toBeVisible()
    await expect(bench.lane('q')).toBeVisible()
    await bench.say('tangent')
    await bench.say('rate')
    await expect(bench.line('Rate of change q′(t) = t/2')).toBeVisible()
    const slope = bench.output('Tangent to q at t = a', 'slope')
    await expect(slope).toHaveText('0')
    await expect(bench.output('Tangent to q at t = a', 'line')).toHaveText('y = −3')

    const flag = bench.slider('Place a')
    const before = (await flag.boundingBox())!
    await bench.drag(flag, 120)
    const a = await bench.valueOf(flag)
    expect(a).toBeGreaterThan(1.5)
    // The flag is where the hand let go, to within the slider's step.
    const after = (await flag.boundingBox())!
    expect(Math.abs(after.x - before.x - 120)).toBeLessThan(4)
    // What hangs on the place has followed: the slope of t²/4 - 3 at a is a/2.
    expect(Number(await slope.getAttribute('data-value'))).toBeCloseTo(a / 2, 10)
    await expect(slope).toHaveText(String(Number((a / 2).toFixed(3))))
    await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', String(a))

    await bench.saved()
    await page.reload()
    await expect(slope).toHaveText(String(Number((a / 2).toFixed(3))))

    await ownServer.stop()
    await ownServer.start()
    await page.goto(`${ownServer.url}/`)
    await page.getByRole('link', { name: 'q(t) = t²/4 − 3' }).first().click()
    await expect(slope).toHaveText(String(Number((a / 2).toFixed(3))))
    await expect(bench.slider('Place a')).toHaveAttribute('aria-valuenow', String(a))
  })
})

test('point, flag and track are one value and move in the same frame', async ({ page, bench }) => {
  await bench.open('f(x) = sin x')
  await bench.button('Show f′').click()
  await bench.say('tangent')
  // Reads flag and slope together in every frame of a drag.
  await page.evaluate(() => {
    const seen: [number, number][] = []
    Object.assign(window, { seen })
    const look = () => {
      const flag = document.querySelector('[aria-label="Place a"]')!
      const slope = document.querySelector('output[aria-label="slope"]')!
      seen.push([
        Number(flag.getAttribute('aria-valuenow')),
        Number(slope.getAttribute('data-value')),
      ])
      requestAnimationFrame(look)
    }
    look()
  })
  await bench.drag(bench.slider('Place a'), 90)
  const afterFlag = await bench.valueOf(bench.slider('a'))
  expect(afterFlag).toBeGreaterThan(1)
  await bench.drag(bench.lane('f').locator('[data-point="a"]'), -60, 5)
  const afterPoint = await bench.valueOf(bench.slider('a'))
  expect(afterPoint).toBeLessThan(afterFlag)
  await bench.drag(bench.slider('a'), 40)
  const afterTrack = await bench.valueOf(bench.slider('Place a'))
  expect(afterTrack).not.toBe(afterPoint)
  const seen = await page.evaluate(() => (window as unknown as { seen: [number, number][] }).seen)
  expect(new Set(seen.map(([a]) => a)).size).toBeGreaterThan(10)
  for (const [a, slope] of seen) expect(slope).toBeCloseTo(Math.cos(a), 10)
})

test('a new formula keeps every line working', async ({ page, bench }) => {
  await bench.open('f(x) = x^3')
  await bench.say('tangent')
  await bench.say("value of f' at 2")
  await expect(bench.output('Value of f′ at x = 2', 'value')).toHaveText('12')
  await bench.button('f(x) = x³').click()
  const field = page.getByRole('textbox', { name: 'Formula' })
  await field.fill('f(x) = e^x')
  await page.keyboard.press('Enter')
  await expect(bench.output('Value of f′ at x = 2', 'value')).toHaveText('7.389')
  await expect(bench.output('Tangent to f at x = a', 'line')).toHaveText('y = x + 1')
})

test('the ladder opens and closes lanes, and each says what it shows', async ({ bench }) => {
  await bench.open('f(x) = x^2 - 1 for -10 <= x <= 10')
  await bench.button('Show f′').click()
  await bench.button('Show f″').or(bench.button('Show f′′')).click()
  await expect(bench.lane('f′')).toBeVisible()
  await expect(bench.lane('f′′')).toBeVisible()
  await expect(bench.lane('f′')).toHaveAccessibleDescription(
    /f′ over x from −10 to 10 lies between about −20 .* and about 20/,
  )
  await expect(bench.button('Show f′')).toHaveAttribute('aria-pressed', 'true')
  await bench.button('Show f').click()
  await expect(bench.lane('f')).toBeHidden()
  await expect(bench.lane('f′')).toBeVisible()
})

test('every edit is undone and redone, a drag as one', async ({ page, bench }) => {
  await bench.open('f(x) = x^2')
  await expect(bench.button('Undo')).toBeDisabled()
  await bench.say('tangent')
  await bench.drag(bench.slider('Place a'), 100)
  const a = await bench.valueOf(bench.slider('a'))
  await bench.drag(bench.slider('Place a'), 50)
  await page.keyboard.press('Control+z')
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', String(a))
  await bench.button('Undo').click()
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', '0')
  await bench.button('Undo').click()
  await expect(bench.line('Tangent to f at x = a')).toBeHidden()
  await page.keyboard.press('Control+Shift+z')
  await bench.button('Redo').click()
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', String(a))
  await bench.saved()
  await page.reload()
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', String(a))
})

test('keys move a flag by steps, and what came of it is spoken', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 for -10 <= x <= 10')
  await bench.say('tangent')
  const flag = bench.slider('Place a')
  await flag.focus()
  const press = async (keys: string, value: number) => {
    await page.keyboard.press(keys)
    await expect(flag).toHaveAttribute('aria-valuenow', String(value))
  }
  await press('ArrowRight', 0.1)
  await press('PageUp', 1.1)
  await press('ArrowDown', 1)
  await press('Shift+ArrowRight', 1.01)
  await press('End', 10)
  await press('ArrowRight', 10)
  await press('Home', -10)
  await expect(page.locator('[aria-live=polite]').filter({ hasText: 'slope −20' })).toHaveText(
    'x = −10. Tangent to f at x = a: slope −20, line y = −20x − 100',
  )
})

test('a place takes an exact expression', async ({ page, bench }) => {
  await bench.open('f(x) = sin x')
  await bench.say('tangent')
  await bench.slider('Place a').focus()
  await page.keyboard.press('Enter')
  await page.getByRole('textbox', { name: 'a exactly' }).fill('pi/2')
  await page.keyboard.press('Enter')
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', String(Math.PI / 2))
  await expect(bench.output('Tangent to f at x = a', 'line')).toHaveText('y = 1.000')
  await expect(bench.slider('Place a')).toBeFocused()
})

test('a typed place is dragged too, and rewrites its sentence', async ({ bench }) => {
  await bench.open('f(x) = x^2 for -10 <= x <= 10')
  await bench.say('value at 2')
  await bench.drag(bench.slider('Place x = 2'), 74)
  const line = bench.working.getByRole('listitem', { name: /^Value of f at x = [\d.]+$/ })
  const place = Number((await line.getAttribute('aria-label'))!.split('= ')[1])
  expect(place).toBeGreaterThan(3.5)
  expect(place).toBeLessThan(4.5)
  await expect(line.locator('output')).toHaveAttribute('data-value', String(place * place))
})

test('units carry into slopes', async ({ page, bench }) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t')
  await bench.say('tangent')
  await bench.button('Study settings').click()
  await page.getByRole('textbox', { name: 'Variable unit' }).fill('h')
  await page.getByRole('textbox', { name: 'Unit of q' }).fill('ML/h')
  await page.getByRole('spinbutton', { name: 'Decimals' }).fill('2')
  await bench.button('Done').click()
  await expect(bench.output('Tangent to q at t = a', 'slope')).toHaveText('3.3 ML/h per h')
  await expect(bench.output('Tangent to q at t = a', 'line')).toHaveText('y = 3.3t + 6')
})

test('a second curve joins the first one’s axes in a colour and with a name of its own', async ({
  bench,
}) => {
  await bench.open('f(x) = x^2')
  await bench.say("let g(x) = f'(x) + 2")
  await expect(bench.line('Let g(x) = f′(x) + 2')).toBeVisible()
  await bench.say('value of g at 3')
  await expect(bench.output('Value of g at x = 3', 'value')).toHaveText('8')
  const lane = bench.lane('f')
  await expect(lane.locator('path.stroke-slate')).toHaveCount(1)
  await expect(lane.locator('svg text').filter({ hasText: /^[fg]$/ })).toHaveCount(2)
  // Its rung, dragged onto the ruler, gives it a lane of its own; dragged back it joins again.
  await bench.button('Show g').dragTo(bench.page.getByTitle('Click to put a place here'))
  await expect(bench.lane('g').locator('path.stroke-slate')).toHaveCount(1)
  await expect(lane.locator('path.stroke-slate')).toHaveCount(0)
  await bench.button('Undo').click()
  await expect(bench.lane('g')).toBeHidden()
  await expect(lane.locator('path.stroke-slate')).toHaveCount(1)
})

import { expect, test } from '../support/fixtures'

test('play moves the place, keeps the frame still, and is neither history nor a save', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2/4 for -10 <= x <= 10')
  await bench.say('tangent')
  await bench.saved()
  const saves: string[] = []
  page.on('request', (r) => r.method() === 'PUT' && saves.push(r.url()))
  const curve = bench.lane('f').locator('path[data-item=curve]')
  const before = await curve.getAttribute('d')
  await bench.button('Play a').click()
  await expect.poll(() => bench.valueOf(bench.slider('a'))).toBeGreaterThan(0.5)
  const slope = bench.output('Tangent to f at x = a', 'slope')
  await page.waitForTimeout(1200)
  expect(await curve.getAttribute('d')).toBe(before)
  expect(saves).toEqual([])
  await bench.button('Pause a').click()
  const a = await bench.valueOf(bench.slider('a'))
  expect(Number(await slope.getAttribute('data-value'))).toBeCloseTo(a / 2, 9)
  await page.waitForTimeout(200)
  expect(await bench.valueOf(bench.slider('a'))).toBe(a)
  // One undo takes back the tangent, not the motion.
  await bench.button('Undo').click()
  await expect(bench.line('Tangent to f at x = a')).toBeHidden()
})

test('there and back, round again and once, each at its pace', async ({ page, bench }) => {
  await bench.open('f(x) = x^2/4 for -10 <= x <= 10')
  await bench.say('tangent')
  const set = async (manner: string, pace: string) => {
    await page.getByRole('button', { name: /a pass$/ }).click()
    await page.getByRole('combobox', { name: 'How a moves' }).selectOption(manner)
    await page.getByRole('spinbutton', { name: 'Pace of a' }).fill(pace)
    await page.keyboard.press('Enter')
    await bench.button('Done').click()
  }
  /** The values a takes in the coming second and a half. */
  const watch = () =>
    page.evaluate(
      () =>
        new Promise<number[]>((resolve) => {
          const seen: number[] = []
          const flag = document.querySelector('[aria-label="Place a"]')!
          const end = performance.now() + 1500
          const look = () => {
            seen.push(Number(flag.getAttribute('aria-valuenow')))
            if (performance.now() < end) requestAnimationFrame(look)
            else resolve(seen)
          }
          look()
        }),
    )
  const turns = (seen: number[]) => {
    const ways = seen
      .slice(1)
      .map((v, i) => Math.sign(v - seen[i]!))
      .filter((s) => s !== 0)
    return { up: ways.filter((w) => w > 0).length, down: ways.filter((w) => w < 0).length }
  }
  await set('once', '1')
  await bench.button('Play a').click()
  expect(turns(await watch()).down).toBe(0)
  await expect(bench.button('Play a')).toBeVisible()
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', '10')

  await set('there and back', '0.5')
  await bench.button('Play a').click()
  const back = turns(await watch())
  expect(Math.min(back.up, back.down)).toBeGreaterThan(3)
  await bench.button('Pause a').click()

  await set('round again', '0.5')
  await bench.button('Play a').click()
  const round = turns(await watch())
  // Each pass goes up all the way and leaps back once.
  expect(round.up).toBeGreaterThan(5 * round.down)
  expect(round.down).toBeGreaterThanOrEqual(1)
  await bench.button('Pause a').click()
})

test('several sliders move at once', async ({ page, bench }) => {
  await page.goto('/')
  await page.getByRole('textbox', { name: 'Function' }).fill('k sin x')
  await bench.button('Give a value to k and open').click()
  await bench.say('tangent')
  await page.getByRole('button', { name: /a pass$/ }).click()
  await page.getByRole('checkbox', { name: 'k moves' }).check()
  await page.getByRole('checkbox', { name: 'a moves' }).check()
  await bench.button('Done').click()
  await bench.button('Play k and a').click()
  await expect.poll(() => bench.valueOf(bench.slider('k'))).toBeGreaterThan(1.2)
  await expect.poll(() => bench.valueOf(bench.slider('a'))).toBeGreaterThan(0.2)
  await bench.button('Pause k and a').click()
})

test('steps, keys and bounds', async ({ page, bench }) => {
  await bench.open('f(x) = x^2/4 for -10 <= x <= 10')
  await bench.say('tangent')
  const a = bench.slider('a')
  await bench.button('Step forward').click()
  await expect(a).toHaveAttribute('aria-valuenow', '0.1')
  await bench.button('Step back').click()
  await expect(a).toHaveAttribute('aria-valuenow', '0')
  await page.locator('body').click({ position: { x: 640, y: 44 } })
  await page.keyboard.press('.')
  await page.keyboard.press('.')
  await page.keyboard.press(',')
  await expect(a).toHaveAttribute('aria-valuenow', '0.1')
  await page.keyboard.press('Space')
  await expect(bench.button('Pause a')).toBeVisible()
  await page.keyboard.press('Space')
  await expect(bench.button('Play a')).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'How it works' })).toBeVisible()
  await page.keyboard.press('Escape')

  await page.getByRole('button', { name: /a pass$/ }).click()
  await page.getByRole('spinbutton', { name: 'a to' }).fill('2pi')
  await page.keyboard.press('Enter')
  await page.getByRole('spinbutton', { name: 'a step' }).fill('0.01')
  await page.keyboard.press('Enter')
  await page.getByRole('spinbutton', { name: 'a from' }).fill('20')
  await page.keyboard.press('Enter')
  await bench.button('Done').click()
  await expect(a).toHaveAttribute('aria-valuemax', String(2 * Math.PI))
  await expect(a).toHaveAttribute('aria-valuemin', '-10')
  await expect(a).toHaveAttribute('data-step', '0.01')
})

test('a typed place is let move, and then plays', async ({ page, bench }) => {
  await bench.open('f(x) = x^2/4 for -10 <= x <= 10')
  await bench.say('tangent at 2')
  await bench.button('Let x = 2 move').click()
  await expect(bench.line('Tangent to f at x = a')).toBeVisible()
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', '2')
  await bench.button('Play a').click()
  await expect.poll(() => bench.valueOf(bench.slider('Place a'))).toBeGreaterThan(2.3)
  await bench.button('Pause a').click()
  await bench.say('tangent at 3')
  await page.getByRole('button', { name: /a pass$/ }).click()
  await bench.button('Let x = 3 move').click()
  await expect(page.getByRole('checkbox', { name: 'b moves' })).toBeChecked()
})

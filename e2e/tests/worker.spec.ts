import { expect, test } from '../support/fixtures'

const rangeOf = (title: string) => `output[aria-label="range of ${title}"]`

test('each lane tells how far its curve reaches, and a drag does not ask again', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = sin(x) + e^(-((x - 3)/0.001)^2) for -10 <= x <= 10')
  const range = page.locator(rangeOf('f'))
  // The spike is a thousandth wide and adds 1 to sin 3; the picture alone does not show it.
  await expect(range).toHaveText('from −1.000 to 1.141, proven')
  await bench.say('tangent')
  await expect(range).toHaveAttribute('aria-busy', 'false')
  // The examination of the curve, which knows its range as well, may still be on its way.
  await page.waitForLoadState('networkidle')
  const texts = await page.evaluate((selector) => {
    const seen: string[] = []
    const output = document.querySelector(selector)!
    new MutationObserver(() => seen.push(output.textContent)).observe(output, {
      childList: true,
      characterData: true,
      subtree: true,
      attributes: true,
    })
    Object.assign(window, { seen })
    return seen
  }, rangeOf('f'))
  expect(texts).toEqual([])
  await bench.drag(bench.slider('Place a'), 80)
  expect(await page.evaluate(() => (window as unknown as { seen: string[] }).seen)).toEqual([])
})

test('beside a pole no number is told that only the search has made', async ({ page, bench }) => {
  await bench.open('f(x) = 1/(x - 4) for -10 <= x <= 10')
  await expect(page.locator(rangeOf('f'))).toHaveText('no lowest and no highest value, proven')
  await bench.button('Show f′').click()
  await expect(page.locator(rangeOf('f′'))).toHaveText('no lowest value, highest −0.005, proven')
  // The area from -10 on has no value beyond the pole: the line says why, and the lane tells nothing.
  await bench.say('accumulate f from -10')
  await expect(bench.working.getByText(/grows without bound at x\s=\s4/)).toBeVisible()
  await expect(page.locator(rangeOf('A'))).toHaveCount(0)
})

test('long work shows its progress, can be stopped, and leaves the page free', async ({
  page,
  bench,
}) => {
  const terms = Array.from({ length: 500 }, (_, i) => `sin(${i + 1}.5x + cos(x))/${i + 1}`)
  await bench.open(`f(x) = ${terms.join(' + ')} for -10 <= x <= 10`)
  const bar = page.getByRole('progressbar', { name: 'Looking for the range of f' })
  await expect(bar).toBeVisible()
  await bench.button('Stop').click()
  await expect(bar).toBeHidden()
  await expect(bench.lane('f').getByText('stopped')).toBeVisible()
  await expect(page.locator(rangeOf('f'))).toBeHidden()
  // A new formula is worked on at once, and nothing of the old one comes through.
  await page.locator('.slot-formula').click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('f(x) = x^2')
  await page.keyboard.press('Enter')
  await expect(page.locator(rangeOf('f'))).toHaveText('from 0 to 100, proven')
  await page.waitForTimeout(500)
  await expect(page.locator(rangeOf('f'))).toHaveText('from 0 to 100, proven')
})

test.describe('with a browser of its own', () => {
  test.use({ ownPage: true })

  test('a line that takes long shows how far it is, can be stopped and goes on where it was', async ({
    page,
    bench,
  }) => {
    // A machine so slow that each slice of the work waits for its turn.
    await page.route(/worker-[^/]*\.js$/, async (route) => {
      const response = await route.fetch()
      const slow = `{
        const post = MessagePort.prototype.postMessage
        MessagePort.prototype.postMessage = function (...parts) {
          setTimeout(() => post.apply(this, parts), 60)
        }
      }`
      await route.fulfill({ response, body: slow + (await response.text()) })
    })
    const terms = Array.from({ length: 20 }, (_, i) => `sin(${i + 1}.5x + cos(x))/${i + 1}`)
    await bench.open(`f(x) = ${terms.join(' + ')} for -10 <= x <= 10`)
    await bench.say('turning points of f')
    const line = bench.line(/^Turning points of f/)
    const bar = line.getByRole('progressbar')
    await expect(bar).toBeVisible()
    const share = async () => Number(await bar.getAttribute('value'))
    const first = await share()
    await expect.poll(share).toBeGreaterThan(first)
    await line.getByRole('button', { name: 'Stop' }).click()
    await expect(line.getByText('Stopped before it was settled.')).toBeVisible()
    // The page is free meanwhile, and other lines are worked out.
    await bench.say('value of f at 1')
    await expect(bench.output('Value of f at x = 1', 'value')).toHaveText(/^−?\d/)
    await line.getByRole('button', { name: 'Go on' }).click()
    await expect(bar).toBeVisible()
    expect(await share()).toBeGreaterThanOrEqual(first)
  })
})

import { expect, test } from '../support/fixtures'

// The inflow of the lagoon; slopes and solutions of it worked out with mpmath:
// findroot(lambda t: 3.6*cos(0.9*t) - 0.3 - 2, …) gives 0.9752702725, 6.0060467365, 7.9565872801.
const inflow = 'q(t) = 6 + 4 sin(0.9t) - 0.3t'

test('a secant closes in on the tangent, in a table and by walking', async ({ page, bench }) => {
  await bench.open(inflow)
  await bench.say('secant')
  const secant = 'Secant to q from t = a to t = a + h'
  await expect(bench.line(secant)).toBeVisible()
  const rise = Number(await bench.output(secant, 'rise').getAttribute('data-value'))
  const run = Number(await bench.output(secant, 'run').getAttribute('data-value'))
  const slope = bench.output(secant, 'slope')
  expect(Number(await slope.getAttribute('data-value'))).toBeCloseTo(rise / run, 12)
  // Dragging the second end moves h, the one free slider in a + h.
  const before = await bench.valueOf(bench.slider('h'))
  await bench.drag(bench.slider('Place a + h'), 60)
  expect(await bench.valueOf(bench.slider('h'))).toBeGreaterThan(before)
  await bench.line(secant).getByRole('button', { name: 'Closing in' }).click()
  const table = page.getByRole('table', { name: 'Secants' })
  // At first the distance to the tangent's slope comes from h; far down rounding takes over.
  await expect(table.getByRole('row').nth(4).getByRole('cell').last()).toHaveText('h')
  await table
    .getByRole('rowgroup')
    .nth(1)
    .evaluate((box) => box.scrollTo(0, 1e4))
  await expect(table.getByText('rounding').first()).toBeVisible()
  await bench.line(secant).getByRole('button', { name: 'Walk h to 0' }).click()
  await expect(bench.slider('h')).toHaveAttribute('aria-valuenow', '0.001', { timeout: 8000 })
  await bench.line(secant).getByRole('button', { name: 'Stop closing in' }).click()
  await bench.say('rate')
  const a = await bench.valueOf(bench.slider('Place a'))
  const exact = 3.6 * Math.cos(0.9 * a) - 0.3
  expect(Number(await slope.getAttribute('data-value'))).toBeCloseTo(exact, 2)
})

test('h = 0 and ends outside the domain say what is the case', async ({ page, bench }) => {
  await bench.open('f(x) = ln x for 0 <= x <= 10')
  await bench.say('secant 1 to 1')
  await expect(bench.working.getByText(/one point makes no secant/)).toBeVisible()
  await bench.say('secant 1 to 40')
  await expect(bench.working.getByText(/lies outside the span/)).toBeVisible()
  await page.keyboard.press('Control+z')
})

test('where is q′ = 2: all times, proven, tied to their places on q', async ({ page, bench }) => {
  await bench.open(inflow)
  await bench.button('Show q′').click()
  await bench.say("where q' = 2 on 0 to 10")
  const line = 'Where is q′ = 2 on [0, 10]'
  await expect(bench.line(line)).toContainText('q′ is 2 at t ≈ 0.975, 6.006 and 7.957')
  await expect(bench.line(line)).toContainText('Complete: no other solution on [0, 10]')
  const rows = page.getByRole('table', { name: 'Solutions' }).getByRole('row')
  await expect(rows).toHaveCount(4)
  await rows.nth(2).hover()
  await expect(bench.lane('q').locator('[data-highlight]')).toBeVisible()
  // The span is a bar: its end, moved by keys, leaves two of the three.
  await bench.slider('Span 1 to').focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('PageDown')
  await expect(
    bench.working.getByRole('listitem', { name: /Where is q′ = 2 on \[0, 6\]/ }),
  ).toBeVisible()
  await expect(rows).toHaveCount(2)
  await bench.say("where q' = 9")
  await expect(bench.working.getByText(/No solution on \[.*\]: proven/)).toBeVisible()
})

test('where is q′ equal to this average rate, in one press', async ({ page, bench }) => {
  await bench.open(inflow)
  await bench.say('average rate of q over 1 to 4')
  const value = bench.output('Average rate of q over [1, 4]', 'value')
  const rate = (4 * Math.sin(3.6) - 4 * Math.sin(0.9) - 0.9) / 3
  expect(Number(await value.getAttribute('data-value'))).toBeCloseTo(rate, 10)
  await bench.button(/equal to this average rate/).click()
  const rows = page.getByRole('table', { name: 'Solutions' }).getByRole('row')
  await expect(rows).toHaveCount(2)
  const t = Number(await rows.nth(1).getByRole('cell').first().textContent())
  expect(3.6 * Math.cos(0.9 * t) - 0.3).toBeCloseTo(rate, 2)
})

test('table, quotients, a fitted line: the rule of a quadratic is guessed', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2')
  await page.getByRole('button', { name: 'f(x) = x²' }).click()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('f(x) = a x^2 + b x + 1')
  await page.keyboard.press('Enter')
  for (const name of ['a', 'b']) {
    await bench.button(`Give a value to ${name}`).click()
  }
  await bench.say('table of f over -1 to 5 by 0.5')
  const table = page.getByRole('table', { name: 'Values' })
  await expect(table.getByRole('columnheader')).toHaveText([
    'x',
    'f(x)',
    'forward quotient',
    'central quotient',
    'f′(x)',
  ])
  await bench.button('Fit a formula').click()
  const fit = bench.working.getByRole('listitem', { name: /^Fit a/ })
  await fit.getByRole('combobox').first().selectOption('line')
  // (ax² + bx + 1)′ is 2ax + b, and both are 1 to begin with.
  await expect(fit.locator('output[aria-label="formula"]')).toHaveText('y = 2.000x + 1.000')
  await bench.slider('a').focus()
  await page.keyboard.press('PageUp')
  await expect(fit.locator('output[aria-label="formula"]')).toHaveText('y = 4.000x + 1.000')
  await table.getByRole('button', { name: 'f(x)' }).click()
  await expect(table.getByRole('columnheader').nth(1)).toHaveAttribute('aria-sort', 'ascending')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    bench.button('Save as CSV').click(),
  ])
  expect(download.suggestedFilename()).toMatch(/\.csv$/)
})

test('the sweep leaves its slopes on the lane of q′', async ({ page, bench }) => {
  await bench.open(`${inflow} for 0 <= t <= 10`)
  await bench.say('tangent')
  await bench.button('Sweep').click()
  await expect(bench.lane('q′')).toBeVisible()
  // The lane that opens shows the whole of q′, from -3.9 to 3.3, while the tangent moves.
  await expect(bench.lane('q′').getByText('−2', { exact: true })).toBeVisible()
  await expect(bench.lane('q′').getByText('2', { exact: true })).toBeVisible()
  const a = bench.slider('a')
  await expect.poll(() => bench.valueOf(a), { timeout: 10_000 }).toBeGreaterThan(1)
  await page.getByRole('button', { name: 'Pause a' }).click()
  const trail = bench.lane('q′').locator('[data-item^="line2.trail"]')
  const length = (await trail.getAttribute('d'))!.length
  await page.getByRole('button', { name: 'Play a' }).click()
  await expect
    .poll(async () => (await trail.getAttribute('d'))!.length, { timeout: 8000 })
    .toBeGreaterThan(length)
})

test('readings pasted as text become a curve with rates and a fit', async ({ page, bench }) => {
  await bench.open('f(x) = x')
  await bench.button('Readings from a file').click()
  await page.getByRole('textbox', { name: 'Readings as text' }).fill('t,w\n0,1\n1,3\nx,4\n3,9')
  await expect(page.getByText(/Line 4: “x” in t is no number/)).toBeVisible()
  await page.getByRole('button', { name: 'Add 3 readings' }).click()
  await expect(bench.line('Let w(x) be given by 3 readings')).toBeVisible()
  await bench.say('value of w at 2')
  // Straight between (1, 3) and (3, 9).
  const value = bench.output('Value of w at x = 2', 'value')
  await expect(value).toHaveText('≈ 6.000')
  await expect(value).toHaveAttribute('data-certain', 'false')
  await bench.button('Readings and their quotients').click()
  const rows = page.getByRole('table', { name: 'Values' }).getByRole('row')
  await expect(rows).toHaveCount(4)
  await expect(rows.nth(2).getByRole('cell')).toHaveText(['1', '3.000', '3.000', '2.000', '2.667'])
})

test('rows copied from a spreadsheet and pasted on the page become readings', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x')
  const paste = (text: string) =>
    page.evaluate((rows) => {
      const clipboardData = new DataTransfer()
      clipboardData.setData('text/plain', rows)
      const event = new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true })
      document.body.dispatchEvent(event)
    }, text)
  await paste('a sentence, and another one')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  // As a spreadsheet with decimal commas and thousands set apart puts it on the clipboard.
  await paste('t\tw\r\n0\t1.000,5\r\n0,5\t1.200,5\r\n1\t1.300,25\r\n')
  const dialog = page.getByRole('dialog', { name: 'Readings' })
  await expect(dialog.getByRole('combobox', { name: 'Readings from' })).toHaveValue('1')
  await dialog.getByRole('button', { name: 'Add 3 readings' }).click()
  await expect(bench.line('Let w(x) be given by 3 readings')).toBeVisible()
  await bench.say('value of w at 0.5')
  await expect(bench.output('Value of w at x = 0.5', 'value')).toHaveAttribute(
    'data-value',
    '1200.5',
  )
})

test('a curve is hidden, named and drawn in another lane', async ({ page, bench }) => {
  await bench.open('f(x) = sin x')
  await bench.say('let g(x) = x/2')
  await bench.button('Heights of f').click()
  await page.getByRole('checkbox', { name: 'g', exact: true }).check()
  await page.keyboard.press('Escape')
  await expect(bench.lane('f').locator('[data-item="over.g.0"]')).toHaveAttribute('d', /M/)
  await bench.line(/^Let f/).hover()
  await bench.button('Hide line 1 in the picture').click()
  await expect(bench.lane('f').locator('[data-item="curve"]')).toHaveAttribute('d', '')
})

test('a new function keeps every line working, or says what it needs', async ({ page, bench }) => {
  await bench.open('f(x) = sin x')
  await bench.say('tangent')
  await bench.say('secant')
  await bench.say('where f = 0.5')
  await page.getByRole('button', { name: 'f(x) = sin(x)' }).click()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('f(x) = x^2/4')
  await page.keyboard.press('Enter')
  await expect(bench.line(/^Where is f = 0.5/)).toContainText('Complete')
  const a = await bench.valueOf(bench.slider('Place a'))
  const slope = bench.output('Tangent to f at x = a', 'slope')
  expect(Number(await slope.getAttribute('data-value'))).toBeCloseTo(a / 2, 10)
  await expect(bench.working.getByRole('alert')).toHaveCount(0)
})

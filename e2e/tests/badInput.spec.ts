import { expect, test } from '../support/fixtures'

const curve = 'Let f(x) = x² for −10 ≤ x ≤ 10'

test.beforeEach(async ({ bench }) => {
  await bench.open('f(x) = x^2 for -10 <= x <= 10')
  await bench.say('tangent')
  await expect(bench.line(curve)).toBeVisible()
})

test('an unreadable formula keeps the last good picture, dimmed, and says where it fails', async ({
  page,
  bench,
}) => {
  const drawn = bench.lane('f').locator('path[data-item=curve]')
  const before = await drawn.getAttribute('d')
  await bench.button('f(x) = x²').click()
  const field = page.getByRole('textbox', { name: 'Formula' })
  await field.fill('f(x) = x^2 + (3')
  await expect(page.locator('.formula-problem')).toHaveText('(')
  await expect(bench.working.getByText('this parenthesis is not closed')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(bench.line('Let f(x) = x^2 + (3 for −10 ≤ x ≤ 10')).toBeVisible()
  await expect(bench.working.getByRole('alert')).toContainText(
    'this parenthesis is not closed · add )',
  )
  await expect(drawn).toHaveAttribute('opacity', /0\.\d+/)
  expect(await drawn.getAttribute('d')).toBe(before)
  await expect(bench.output('Tangent to f at x = a', 'slope')).toHaveText('0')

  // What was typed survives a reload, and so does the picture.
  await bench.saved()
  await page.reload()
  await expect(bench.working.getByRole('alert')).toContainText('not closed')
  await expect(drawn).toHaveAttribute('d', before!)
  await bench.button('f(x) = x^2 + (3').click()
  await field.fill('f(x) = x^2 + 3')
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('alert')).toBeHidden()
  await expect(drawn).not.toHaveAttribute('opacity', /./)
})

test('an unknown letter is offered a value', async ({ page, bench }) => {
  await bench.button('f(x) = x²').click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('f(x) = k x^2')
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('alert')).toContainText('k has no value yet')
  await bench.button('Give a value to k').click()
  await expect(bench.slider('k')).toHaveAttribute('aria-valuenow', '1')
  await expect(bench.line('Let f(x) = k x² for −10 ≤ x ≤ 10')).toBeVisible()
  await expect(bench.working.getByRole('alert')).toBeHidden()
})

test('Escape leaves everything as it was', async ({ page, bench }) => {
  await bench.button('f(x) = x²').click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('nonsense(')
  await page.keyboard.press('Escape')
  await expect(bench.line(curve)).toBeVisible()
  await expect(bench.button('f(x) = x²')).toBeFocused()
})

test('a span with swapped or equal ends is not taken, and stays to be mended', async ({
  page,
  bench,
}) => {
  await bench.button('−10 ≤ x ≤ 10').click()
  const field = page.getByRole('textbox', { name: 'Span' })
  await field.fill('10 to -10')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText(
    'this span ends at −10, below its beginning 10: swap the ends',
  )
  await field.fill('3 to 3')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('two different ends')
  await field.fill('0 to 2pi')
  await page.keyboard.press('Enter')
  await expect(bench.line('Let f(x) = x² for 0 ≤ x ≤ 2π')).toBeVisible()
})

test('a place outside the span, or without a value, says so', async ({ page, bench }) => {
  await bench.button('x = a').click()
  await page.getByRole('textbox', { name: 'Place' }).fill('12')
  await page.keyboard.press('Enter')
  await expect(bench.line('Tangent to f at x = 12').getByRole('alert')).toContainText(
    'x = 12 lies outside the span of f, −10 to 10',
  )
  await bench.button('x = 12').click()
  await page.getByRole('textbox', { name: 'Place' }).fill('b')
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('alert')).toContainText('b has no value yet')
  await bench.button('Give a value to b').click()
  await expect(bench.slider('Place b')).toBeVisible()
  await expect(bench.output('Tangent to f at x = b', 'slope')).toHaveText('0')
})

test('the Function field says what is wrong before anything is made', async ({ page }) => {
  await page.goto('/')
  const field = page.getByRole('textbox', { name: 'Function' })
  await field.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('There is no formula yet')).toBeVisible()
  await field.fill('3 +')
  await expect(page.getByText('something is missing after +')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/$/)
  await field.fill('k x')
  await page.getByRole('button', { name: 'Give a value to k and open' }).click()
  await expect(page.getByRole('slider', { name: 'k', exact: true })).toBeVisible()
})

test('an unknown study says so and leads back', async ({ page }) => {
  await page.goto('/studies/00000000-0000-4000-8000-000000000000')
  await expect(page.getByRole('heading', { name: 'there is no study with this id' })).toBeVisible()
  await page.getByRole('link', { name: 'To the studies' }).click()
  await expect(page.getByRole('heading', { name: 'Studies' })).toBeVisible()
})

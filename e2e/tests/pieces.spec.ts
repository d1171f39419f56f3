import { expect, test } from '../support/fixtures'

test('a formula is put into pieces row by row, and its joins are told', async ({ page, bench }) => {
  await bench.open('f(x) = x^2')
  await bench.button('f(x) = x²').click()
  await bench.button('In pieces').click()
  const field = (name: string) => page.getByRole('textbox', { name, exact: true })
  await expect(field('Formula of piece 1')).toHaveValue('x^2')
  await field('Condition of piece 1').fill('x < 1')
  await field('Formula of piece 2').fill('2 - x')
  await bench.button('Add a piece').click()
  await field('Condition of piece 2').fill('x < 4')
  await field('Formula of piece 3').fill('-2 +')
  await expect(field('Formula of piece 3')).toHaveAttribute('aria-invalid', 'true')
  await expect(field('Formula of piece 1')).toHaveAttribute('aria-invalid', 'false')
  await field('Formula of piece 3').fill('1')
  await field('Formula of piece 3').press('Enter')
  const line = bench.line('Let f(x) = x² if x < 1; 2 − x if x < 4; 1 otherwise for −10 ≤ x ≤ 10')
  await expect(line.locator('.katex .mtable')).toBeVisible()
  await expect(line).toContainText('At x = 1, there is a kink: f is continuous')
  await expect(line).toContainText('At x = 4, f jumps from −2 to 1')

  // Opened again it comes in rows; a removed one is gone, Escape leaves all as it was.
  await bench.button('f(x) = x² if x < 1; 2 − x if x < 4; 1 otherwise').click()
  await bench.button('Remove piece 2').click()
  await field('Condition of piece 1').press('Escape')
  await expect(line).toBeVisible()
  await bench.button('f(x) = x² if x < 1; 2 − x if x < 4; 1 otherwise').click()
  await bench.button('Remove piece 2').click()
  await bench.button('Use it').click()
  await expect(bench.line('Let f(x) = x² if x < 1; 1 otherwise for −10 ≤ x ≤ 10')).toBeVisible()
  await expect(bench.working).toContainText('is continuous, its slope goes from 2 to 0')
  await bench.button('f(x) = x² if x < 1; 1 otherwise').click()
  await bench.button('As one formula').click()
  await expect(field('Formula')).toHaveText('f(x) = x^2 if x < 1; 1 otherwise')
})

test('LaTeX from a document can be pasted', async ({ page, bench }) => {
  await page.goto('/')
  const field = page.getByRole('textbox', { name: 'Function' })
  await field.fill(
    '$q(t) = \\begin{cases} \\frac{t^2}{2} & t < 2 \\\\ 4 - t & \\text{otherwise} \\end{cases}$',
  )
  await page.keyboard.press('Enter')
  await expect(
    bench.line('Let q(t) = t²/2 if t < 2; 4 − t otherwise for −10 ≤ t ≤ 10'),
  ).toBeVisible()
})

test('a value says its exact form, proven or likely', async ({ page, bench }) => {
  await page.goto('/')
  await page.getByRole('textbox', { name: 'Function' }).fill('x^2/3 + sin x')
  await page.keyboard.press('Enter')
  await bench.say('value at 0')
  await bench.say("value of f'' at 1/2")
  await bench.say('tangent at pi/4')
  await bench.button('f(x) = x²/3 + sin(x)').click()
  await page.getByRole('textbox', { name: 'Formula' }).fill('f(x) = x^3/9')
  await page.keyboard.press('Enter')
  await expect(bench.line('Value of f′′ at x = 1/2')).toContainText('exactly 1/3')
  await expect(bench.line('Tangent to f at x = π/4')).toContainText('exactly π²/48')
})

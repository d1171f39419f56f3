import { expect, test } from '../support/fixtures'

test('a slider asked for by its name moves what is built on it, and undo takes it back', async ({
  bench,
}) => {
  await bench.open('f(x) = x^2, 0 <= x <= 4')
  await bench.say('let k = 3 from 0 to 5')
  await expect(bench.slider('k')).toHaveAttribute('aria-valuenow', '3')
  await expect(bench.slider('k')).toHaveAttribute('aria-valuemax', '5')
  await bench.say('let g(x) = k x')
  await bench.say('value of g at 2')
  const value = bench.output('Value of g at x = 2', 'value')
  await expect(value).toHaveAttribute('data-value', '6')
  await bench.slider('k').focus()
  await bench.page.keyboard.press('End')
  await expect(value).toHaveAttribute('data-value', '10')
  await bench.say('let k = 4')
  await expect(bench.page.getByText('Set k to 4', { exact: true })).toBeAttached()
  await expect(value).toHaveAttribute('data-value', '8')
  for (let i = 0; i < 5; i++) await bench.button('Undo').click()
  await expect(bench.slider('k')).toBeHidden()
})

test('a slider that cannot be is not added, and the field says why', async ({ page, bench }) => {
  await bench.open('f(x) = x^2, 0 <= x <= 4')
  await page.getByRole('combobox', { name: 'Say what to add' }).fill('slider u from 3 to -3')
  await expect(page.getByText('A slider goes from a smaller number to a larger one.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(bench.slider('u')).toBeHidden()
  await expect(page.getByRole('combobox', { name: 'Say what to add' })).toHaveValue(
    'slider u from 3 to -3',
  )
})

import { expect, test } from '../support/fixtures'

test('moving the number of strips says the sum, and saving says nothing', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 for 0 <= x <= 3')
  await bench.say('area 0 to 3')
  await bench.slider('n').focus()
  await page.keyboard.press('ArrowRight')
  await expect(bench.slider('n')).toHaveAttribute('aria-valuenow', '9')
  // Nine strips with left heights: (1/3)³ · (0 + 1 + 4 + … + 64) = 204/27.
  const spoken = page.locator('[aria-live=polite]').filter({ hasText: 'n = 9' })
  await expect(spoken).toContainText(`sum ${(204 / 27).toFixed(3)}`)
  await expect(page.getByRole('status').filter({ hasText: /^Sav/ })).toHaveAttribute(
    'aria-live',
    'off',
  )
})

test('of a covered lane nothing is told but that it is covered', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 for -3 <= x <= 3')
  await bench.button('Show f′').click()
  await expect(bench.lane('f′')).toHaveAccessibleDescription(/lies between/)
  await bench.button('Heights of f′').click()
  await page.getByRole('checkbox', { name: /Covered/ }).check()
  await page.keyboard.press('Escape')
  await expect(bench.lane('f′')).toHaveAccessibleDescription(
    'f′ is covered: guess first, then uncover it.',
  )
  await expect(bench.lane('f′').locator('output')).toHaveCount(0)
  await bench.button('Uncover f′').click()
  await expect(bench.button('Heights of f′')).toBeFocused()
  await expect(bench.lane('f′')).toHaveAccessibleDescription(/lies between/)
})

test('a body and a note on a covered lane tell nothing of it', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 for -3 <= x <= 3')
  await bench.say('marker raft on f at 2')
  await bench.say('note It is {f(2)}')
  await expect(page.getByRole('note')).toHaveCount(2)
  await bench.button('Heights of f').click()
  await page.getByRole('checkbox', { name: /Covered/ }).check()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('note')).toHaveCount(0)
})

test('the focus goes to a neighbour when what had it is gone', async ({ page, bench }) => {
  await bench.open('f(x) = x^2')
  await bench.say('value of f at 1')
  await bench.say('value of f at 2')
  await bench.button('Remove line 2').click()
  await expect(bench.button('Move line 2')).toBeFocused()
  await bench.button('Remove line 2').click()
  await expect(bench.button('Move line 1')).toBeFocused()
  for (let i = 0; i < 4; i++) await bench.button('Undo').click()
  await expect(bench.button('Undo')).toBeDisabled()
  await expect(bench.button('Redo')).toBeFocused()
  await bench.button('Rename').click()
  await page.getByRole('textbox', { name: 'Title' }).fill('A parabola')
  await page.keyboard.press('Enter')
  await expect(bench.button('Rename')).toBeFocused()
})

test('deleting a study leaves its way back at hand', async ({ page, bench }) => {
  await bench.open('f(x) = x^5 - x')
  await bench.saved()
  await page.goto('/')
  const row = page.getByRole('link', { name: 'f(x) = x⁵ − x' }).first()
  await expect(row).toBeVisible()
  await page.getByRole('button', { name: 'More for f(x) = x⁵ − x' }).first().click()
  await page.getByRole('menuitem', { name: 'Delete' }).click()
  await expect(page.getByRole('button', { name: 'Undo' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(row).toBeVisible()
})

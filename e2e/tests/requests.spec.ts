import type { Page } from '@playwright/test'
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

const field = (page: Page) => page.getByRole('combobox', { name: 'Say what to add' })
const offered = (page: Page) => page.getByRole('option')

test('the field opens on what can be said, in groups, by mouse and by keys', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^3 - 3x, -2 <= x <= 3')
  await page.keyboard.press('/')
  for (const group of ['At a place', 'Over a span', 'About the whole', 'Beside the graph']) {
    await expect(page.getByRole('group', { name: group })).toBeAttached()
  }
  await offered(page).filter({ hasText: 'normal' }).click()
  await expect(bench.line('Normal to f at x = a')).toBeVisible()
  // Enter alone takes nothing from a list nobody has looked through.
  await field(page).blur()
  await field(page).click()
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('listitem', { name: /f/ })).toHaveCount(2)
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('listitem', { name: /f/ })).toHaveCount(3)
})

test('words that are not understood are underlined, and nothing is added until they are gone', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^3 - 3x')
  await field(page).fill('tangent at 2 in blue and green')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-strange]')).toHaveText(['blue', 'green'])
  await expect(field(page)).toHaveValue('tangent at 2 in blue and green')
  await expect(page.getByText('“blue”, “green” were not understood.')).toBeVisible()
  await expect(bench.line('Tangent to f at x = 2')).toBeHidden()
  await bench.button('Leave them out').click()
  await expect(page.locator('[data-strange]')).toHaveCount(0)
  await page.keyboard.press('Enter')
  await expect(bench.line('Tangent to f at x = 2')).toBeVisible()
  await expect(field(page)).toHaveValue('')
})

test('a slip is mended by one press', async ({ page, bench }) => {
  await bench.open('f(x) = x^3 - 3x')
  await field(page).fill('tangnet at 2')
  await page.keyboard.press('Enter')
  await expect(bench.line('Tangent to f at x = 2')).toBeHidden()
  await bench.button('Say “tangent at 2”').click()
  await page.keyboard.press('Enter')
  await expect(bench.line('Tangent to f at x = 2')).toBeVisible()
})

test('of two equal readings one is chosen, and Enter alone chooses none', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^3 - 3x')
  await bench.say('let k(x) = x/2')
  await field(page).fill('tangent at 2')
  await expect(page.getByText('Which is meant?')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('listitem', { name: /^Tangent/ })).toHaveCount(0)
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('listitem', { name: /^Tangent/ })).toHaveCount(1)
})

test('what is not built is answered with the nearest thing and why', async ({ page, bench }) => {
  await bench.open('f(x) = x^3 - 3x')
  await field(page).fill("newton's method from 2")
  await expect(page.getByText(/all zeros are found at once, with proof/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(bench.working.getByRole('listitem', { name: /^Zeros/ })).toHaveCount(0)
  await offered(page).first().click()
  await expect(bench.line(/^Zeros of f/)).toBeVisible()
})

test.describe('with a browser of its own', () => {
  test.use({ ownPage: true })

  test('several requests that are pasted are added one after the other', async ({
    page,
    bench,
  }) => {
    await bench.open('f(x) = x^3 - 3x, -2 <= x <= 3')
    await field(page).focus()
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
    await page.evaluate(() =>
      navigator.clipboard.writeText('tangent at 2, zeros and area from 0 to 2'),
    )
    await page.keyboard.press('Control+V')
    await expect(page.getByText('Next: “zeros and area from 0 to 2”')).toBeVisible()
    await page.keyboard.press('Enter')
    await expect(field(page)).toHaveValue('zeros and area from 0 to 2')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Enter')
    await expect(bench.line('Tangent to f at x = 2')).toBeVisible()
    await expect(bench.line(/^Zeros of f/)).toBeVisible()
    await expect(bench.line(/^Area under f over \[0, 2\]/)).toBeVisible()
    await expect(field(page)).toHaveValue('')
  })
})

test('how it works shows what can be said, and what is pressed there stands in the field', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = t^2')
  await page.keyboard.press('?')
  const panel = page.getByRole('dialog', { name: 'How it works' })
  await expect(panel.getByRole('heading', { name: 'With the hand' })).toBeVisible()
  await panel.getByRole('button', { name: 'where is q′ > 0' }).click()
  await expect(panel).toBeHidden()
  await expect(field(page)).toHaveValue('where is q′ > 0')
  await field(page).press('Enter')
  await expect(bench.line(/^Where is q′ > 0/)).toBeVisible()
})

test.describe('in a browser that has opened no study yet', () => {
  test.use({ firstVisit: true })
  test('three hints stand beside the first study, and stay away once put away', async ({
    page,
    bench,
  }) => {
    await bench.open('f(x) = x^2')
    const hints = page.getByRole('complementary', { name: 'To begin with' })
    await expect(hints.getByRole('listitem')).toHaveCount(3)
    await hints.getByRole('button', { name: 'Put away' }).click()
    await expect(hints).toBeHidden()
    await page.reload()
    await bench.working.waitFor()
    await expect(hints).toBeHidden()
  })
})

test('the start field takes an exercise, and what it does not understand goes along', async ({
  page,
  bench,
}) => {
  await page.goto('/')
  const start = page.getByRole('textbox', { name: 'Function' })
  await start.fill('Find the tangent to f(x) = x^3 - 3x at x = 2, its zeros and the colour of it')
  await expect(page.getByRole('list', { name: 'Also opened with' })).toContainText(
    'Tangent to f at x = 2',
  )
  await expect(page.getByText('Not understood: the colour of it')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(bench.line('Tangent to f at x = 2')).toBeVisible()
  await expect(bench.line(/^Zeros of f/)).toBeVisible()
  await expect(field(page)).toHaveValue('the colour of it')
})

test('a figure behind a letter is asked about where it is typed', async ({ page, bench }) => {
  await page.goto('/')
  await page.getByRole('textbox', { name: 'Function' }).fill('x2 + 1')
  await expect(page.getByText('x2 could mean three things')).toBeVisible()
  await bench.button('Use x^2').click()
  await bench.button('Open').click()
  await expect(bench.line(/^Let f\(x\) = x² \+ 1/)).toBeVisible()
})

test('on a phone the field, its list and its notes can be used', async ({ page, bench }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await bench.open('f(x) = x^3 - 3x')
  await field(page).click()
  const list = page.getByRole('listbox')
  await expect(list).toBeVisible()
  const box = (await list.boundingBox())!
  expect(box.x).toBeGreaterThanOrEqual(0)
  expect(box.x + box.width).toBeLessThanOrEqual(390)
  await field(page).fill('tangent at 2 in blue')
  await bench.button('Leave it out').click()
  await page.keyboard.press('Enter')
  await expect(bench.line('Tangent to f at x = 2')).toBeVisible()

  // The head keeps the title, and a dialog stays on the page with its end in reach.
  await expect(page.getByRole('heading', { level: 1 })).toBeInViewport()
  await expect(bench.button('Study settings')).toBeInViewport({ ratio: 1 })
  await bench.button('How it works').click()
  const panel = (await page.getByRole('dialog').locator('.popover').boundingBox())!
  expect(panel.x).toBeGreaterThanOrEqual(0)
  expect(panel.x + panel.width).toBeLessThanOrEqual(390)
  await bench.button('Done').scrollIntoViewIfNeeded()
  await expect(bench.button('Done')).toBeInViewport({ ratio: 1 })
})

test('without a curve the picture and the working say how to begin', async ({ page, bench }) => {
  await bench.open('f(x) = x^2')
  await bench.line(/^Let f/).hover()
  await bench.button('Remove line 1').click()
  await expect(page.getByText(/There is no curve to draw/)).toBeVisible()
  await expect(page.getByText(/Nothing stands here yet/)).toBeVisible()
  await bench.say('let g(x) = x^2 - 3')
  await expect(bench.lane('g')).toBeVisible()
})

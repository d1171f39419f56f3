import type { Page } from '@playwright/test'
import { type Bench, expect, test } from '../support/fixtures'

const flood = 'q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10'
const notes = (page: Page) => page.getByRole('note')

async function caption(page: Page, bench: Bench, words: string) {
  await bench.working.getByRole('button', { name: 'caption', exact: true }).click()
  await page.getByRole('textbox', { name: 'Words' }).fill(words)
  await page.keyboard.press('Enter')
}

test('a body rides the curve: dragged and moved by keys, its caption and a note live with it', async ({
  page,
  bench,
}) => {
  await bench.open(flood)
  await bench.say('marker raft on q')
  await caption(page, bench, '{a} h, {q(a)} ML/h')
  // q(5) = 6 + 4 sin 4.5 − 1.5
  await expect(notes(page)).toHaveAccessibleName('5 h, 0.590 ML/h')
  await bench.say("note Going down: $q' = \\live{q'(a)}$, {q(a)}")
  await expect(notes(page).nth(1)).toHaveAccessibleName(/^Going down: q/)

  const body = page.locator('[data-body]')
  const before = await bench.valueOf(bench.slider('a'))
  await bench.drag(body, -120)
  const after = await bench.valueOf(bench.slider('a'))
  expect(after).toBeLessThan(before - 1)
  await expect(notes(page).first()).not.toHaveAccessibleName('5 h, 0.590 ML/h')
  // The frame has stood still, and the body looks back where it went.
  await expect(page.locator('path[data-item="line2.body"]')).toHaveAttribute(
    'transform',
    /scale\(-/,
  )
  await body.focus()
  await page.keyboard.press('ArrowRight')
  expect(await bench.valueOf(bench.slider('a'))).toBeCloseTo(after + 0.1, 6)
  await expect(page.locator('path[data-item="line2.body"]')).toHaveAttribute(
    'transform',
    /scale\(\d/,
  )
})

test('a note is dragged, moved by keys and edited where it stands, and stays after a reload', async ({
  page,
  bench,
}) => {
  await bench.open(flood)
  await bench.say('note Low water')
  const note = notes(page)
  const at = async () => (await note.boundingBox())!
  const first = await at()
  await bench.drag(page.getByRole('button', { name: 'Edit or move this note' }), -150, -60)
  const dragged = await at()
  expect(dragged.x - first.x).toBeCloseTo(-150, -1)
  expect(dragged.y - first.y).toBeCloseTo(-60, -1)
  await page.getByRole('button', { name: 'Edit or move this note' }).focus()
  await page.keyboard.press('ArrowDown')
  await expect.poll(async () => (await at()).y - dragged.y).toBeCloseTo(8, 0)
  await page.keyboard.press('Enter')
  const words = page.getByRole('textbox', { name: 'Words of the note' })
  await words.fill('High water {k}')
  await page.keyboard.press('Enter')
  // An unreadable value is kept, underlined and told.
  await expect(note).toHaveAccessibleName('High water {k}')
  await expect(note.locator('.formula-problem')).toHaveText('{k}')
  await expect(bench.working.getByRole('alert')).toContainText('k')
  await page.keyboard.press('Control+z')
  await expect(note).toHaveAccessibleName('Low water')
  await bench.saved()
  await page.reload()
  await expect(note).toHaveAccessibleName('Low water')
  expect((await at()).x).toBeCloseTo(dragged.x, 0)
})

test('a loose point is dragged in the plane, and stops on its grid', async ({ page, bench }) => {
  await bench.open('f(x) = x^2/4 for -4 ≤ x ≤ 4')
  await bench.say('point (1, 2)')
  await expect(bench.slider('u')).toHaveAttribute('aria-valuenow', '1')
  await bench.drag(page.locator('[data-body]'), 80, -30)
  expect(await bench.valueOf(bench.slider('u'))).toBeGreaterThan(1.4)
  expect(await bench.valueOf(bench.slider('v'))).toBeGreaterThan(2)
  await bench.line(/^Marker disc/).hover()
  await page.getByRole('button', { name: 'On a grid' }).click()
  await bench.drag(page.locator('[data-body]'), 60, 20)
  const [u, v] = [await bench.valueOf(bench.slider('u')), await bench.valueOf(bench.slider('v'))]
  expect([u, v].map((value) => Math.abs(value - Math.round(value)))).toEqual([0, 0])
})

test('the staged examples say what holds: words come and go while the raft moves', async ({
  page,
  bench,
}) => {
  await page.goto('/')
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('raft')
  await page.getByRole('link', { name: 'A raft on the swell' }).click()
  const going = page.getByRole('note', { name: /^Going down/ })
  // The raft goes down between the crest at 0.8x = π/2 and the trough.
  await expect(going).toHaveCount(1)
  await bench.slider('a').focus()
  await page.keyboard.press('Home')
  await expect(going).toHaveCount(0)
  // At the very end of the span it does not go on falling.
  await page.keyboard.press('End')
  await expect(going).toHaveCount(0)
  await page.keyboard.press('ArrowLeft')
  await expect(going).toHaveCount(1)
  await page.getByRole('switch', { name: 'Where it goes down' }).click()
  await expect(going).toHaveCount(0)
  await expect(page.getByRole('note', { name: 'A raft on the swell' })).toBeVisible()
  await page.getByRole('button', { name: 'Dark look' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-look', 'night')
})

test('a trail marks where it went down, is cleared by its button and by a key', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = t^3 - 3t for -3 ≤ t ≤ 3')
  await bench.say('trail of q')
  const trail = page.locator('path[data-item="line2.trail"]')
  await expect(trail).toHaveCount(0)
  await bench.drag(bench.slider('Place a'), 90)
  await expect(trail).toHaveAttribute('d', /^M.{40,}/)
  await page.getByRole('button', { name: 'Clear trails' }).click()
  await expect(trail).toHaveCount(0)
  await bench.drag(bench.slider('Place a'), -60)
  await expect(trail).toHaveCount(1)
  await page.keyboard.press('c')
  await expect(trail).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Clear trails' })).toHaveCount(0)
})

test('the look of one line is taken over by another', async ({ page, bench }) => {
  await bench.open(flood)
  await bench.say('tangent')
  await bench.say('tangent at 2')
  await bench.line('Tangent to q at t = a').hover()
  await page.getByRole('button', { name: 'Look of line 2' }).click()
  await page.getByRole('radio', { name: 'plum' }).click()
  await page.getByRole('button', { name: 'Copy this look' }).click()
  await page.keyboard.press('Escape')
  await bench.line('Tangent to q at t = 2').hover()
  await page.getByRole('button', { name: 'Look of line 3' }).click()
  await page.getByRole('button', { name: 'Use the copied look' }).click()
  await page.keyboard.press('Escape')
  for (const line of ['line2', 'line3']) {
    await expect(page.locator(`path[data-item="${line}.tangent"]`)).toHaveClass(/stroke-plum/)
  }
})

import type { Page } from '@playwright/test'
import { expect, test } from '../support/fixtures'

/** Opens a copy of the demo lesson, so that no test changes what another reads. */
async function openLesson(page: Page) {
  const { studies } = (await (
    await page.request.get('/api/studies?search=How%20fast%20at%20this')
  ).json()) as {
    studies: { id: string; title: string }[]
  }
  const { id } = studies.find(({ title }) => title === 'How fast at this very moment?')!
  const { study } = (await (await page.request.get(`/api/studies/${id}`)).json()) as {
    study: Record<string, unknown>
  }
  const made = await page.request.post('/api/studies', {
    data: { study: { ...study, title: 'A lesson' } },
  })
  await page.goto(`/studies/${((await made.json()) as { id: string }).id}`)
  await page.getByRole('region', { name: 'Working' }).waitFor()
}

test('a clicker leads through the lesson; the speaker has a window with words, the next step and a clock', async ({
  page,
  bench,
}) => {
  await openLesson(page)
  await page.locator('body').press('p')
  const title = page.getByRole('heading', { level: 1 })
  await expect(title).toHaveText('The water comes in')
  await expect(page.getByText('When does most of it come in?')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Working' })).toHaveCount(0)

  const opening = page.context().waitForEvent('page')
  await page.keyboard.press('s')
  const speaker = await opening
  await expect(speaker.getByRole('region', { name: 'Now' })).toContainText(
    'Let the class look at the curve first.',
  )
  await expect(speaker.getByRole('region', { name: 'Next' })).toContainText('Two readings')
  await expect(speaker.getByRole('timer', { name: 'Since the beginning' })).toHaveText(/^00:\d\d$/)
  // Words to say are for the speaker alone.
  await expect(page.getByText('Let the class look at the curve first.')).toHaveCount(0)

  await page.keyboard.press('PageDown')
  await expect(title).toHaveText('Two readings')
  await expect(speaker.getByRole('heading', { name: 'Two readings' })).toBeVisible()
  // A browser leaves the whole screen where a window opens: that ends nothing, and a key takes it again.
  await expect.poll(() => page.evaluate(() => document.fullscreenElement !== null)).toBe(true)
  await speaker.getByRole('button', { name: 'Next in lesson' }).click()
  await expect(title).toHaveText('Closer together')
  await expect(bench.slider('h')).toHaveAttribute('aria-valuenow', '1')
  // A clicker's keys go to the lesson also where a track has the focus.
  await bench.slider('a').focus()
  await page.keyboard.press('PageUp')
  await expect(title).toHaveText('Two readings')
  await expect(bench.slider('a')).toHaveAttribute('aria-valuenow', '2')
  await page.keyboard.press('[')
  await expect(title).toHaveText('The water comes in')
  await page.getByRole('button', { name: 'Next in lesson' }).click()
  await expect(title).toHaveText('Two readings')
  await page.getByRole('button', { name: 'Previous in lesson' }).click()
  await expect(title).toHaveText('The water comes in')

  await page.keyboard.press('p')
  await expect(speaker.getByRole('status')).toContainText('Presenting has ended')
  await expect(page.getByRole('region', { name: 'Working' })).toBeVisible()
})

test('Space plays what the step plays, and then goes on', async ({ page, bench }) => {
  await openLesson(page)
  await page.getByRole('button', { name: 'The tangent', exact: true }).click()
  await page.locator('body').press('p')
  const title = page.getByRole('heading', { level: 1 })
  await expect(title).toHaveText('The tangent')
  await page.keyboard.press('Space')
  await expect(title).toHaveText('Where it stands still')
  // Stopped on its way it goes on from there.
  const grows = async () => {
    const before = await bench.valueOf(bench.slider('a'))
    await page.waitForTimeout(60)
    return (await bench.valueOf(bench.slider('a'))) > before
  }
  await expect.poll(grows).toBe(true)
  await page.keyboard.press('Space')
  const halted = await bench.valueOf(bench.slider('a'))
  await page.waitForTimeout(300)
  expect(await bench.valueOf(bench.slider('a'))).toBe(halted)
  await page.keyboard.press('Space')
  // It plays by itself, and stops where the slope is 0: cos(0.9t) = 1/12.
  await expect(page.locator('output[aria-label=slope]')).toHaveText(/^−?0\.000/, {
    timeout: 20_000,
  })
  await expect
    .poll(() => bench.valueOf(bench.slider('a')), { timeout: 20_000 })
    .toBeCloseTo(Math.acos(1 / 12) / 0.9, 9)
  await page.keyboard.press('Space')
  await expect(title).toHaveText('What will the slopes look like?')
  // Come to again the step begins as it was kept.
  await page.keyboard.press('PageUp')
  await expect.poll(() => bench.valueOf(bench.slider('a'))).toBeLessThan(1.6)
})

test('numbers are hidden until asked for', async ({ page }) => {
  await openLesson(page)
  await page.getByRole('button', { name: 'Two readings', exact: true }).click()
  await page.locator('body').press('p')
  const slope = page.getByRole('list', { name: 'Results' }).locator('output')
  await expect(slope).toBeVisible()
  const onPicture = page.locator('svg text[data-figures]').first()
  await expect(onPicture).toBeVisible()
  await page.keyboard.press('n')
  await expect(slope).toBeHidden()
  await expect(onPicture).toBeHidden()
  await expect(page.locator('main [data-figures]:visible')).toHaveCount(0)
  await page.keyboard.press('PageDown')
  await expect(slope).toBeHidden()
  await page.getByRole('button', { name: 'Show numbers' }).click()
  await expect(slope).toBeVisible()
})

test('what is drawn stays with its step, is wiped by a key, and saved only when asked', async ({
  page,
}) => {
  await openLesson(page)
  await page.locator('body').press('p')
  const strokes = page.locator('path[data-drawn]')
  const draw = async () => {
    await page.mouse.move(400, 300)
    await page.mouse.down()
    await page.mouse.move(500, 380, { steps: 6 })
    await page.mouse.move(640, 300, { steps: 6 })
    await page.mouse.up()
  }
  await page.keyboard.press('d')
  await draw()
  await expect(strokes).toHaveCount(1)
  const [d, box] = [await strokes.getAttribute('d'), (await strokes.boundingBox())!]
  expect(d!.length).toBeGreaterThan(60)
  expect([box.x, box.x + box.width].map(Math.round)).toEqual([
    expect.closeTo(397, -1),
    expect.closeTo(643, -1),
  ])
  await page.keyboard.press('PageDown')
  await expect(strokes).toHaveCount(0)
  await page.keyboard.press('PageUp')
  await expect(strokes).toHaveCount(1)
  await page.keyboard.press('w')
  await expect(strokes).toHaveCount(0)
  await draw()
  await page.getByRole('button', { name: 'Keep the drawing' }).click()
  await page.keyboard.press('d')
  await page.keyboard.press('p')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await page.locator('body').press('p')
  await expect(strokes).toHaveCount(1)
})

test('what is changed while presenting is kept or dropped; a large pointer follows the mouse', async ({
  page,
  bench,
}) => {
  await openLesson(page)
  await page.getByRole('button', { name: 'Two readings', exact: true }).click()
  const a = bench.slider('a')
  await expect(a).toHaveAttribute('aria-valuenow', '2')
  await page.locator('body').press('p')
  await page.keyboard.press('l')
  await page.mouse.move(300, 300)
  await page.mouse.move(420, 310)
  const disc = (await page.locator('[data-pointer] > div').boundingBox())!
  expect([disc.x + disc.width / 2, disc.y + disc.height / 2]).toEqual([420, 310])
  expect(disc.width).toBeGreaterThan(40)
  await bench.drag(a, 60)
  const moved = await bench.valueOf(a)
  expect(moved).not.toBe(2)
  await page.getByRole('button', { name: 'End presenting' }).click()
  await page.getByRole('button', { name: 'Go on presenting' }).click()
  await page.getByRole('button', { name: 'End presenting' }).click()
  await page.getByRole('button', { name: 'Drop it' }).click()
  await expect(a).toHaveAttribute('aria-valuenow', '2')
  // Dropped is not lost.
  await page.keyboard.press('Control+z')
  await expect(a).toHaveAttribute('aria-valuenow', String(moved))
  await bench.saved()
})

test('a learner marks signs in a step, uncovers, tries again, and finds both tries after a reload', async ({
  page,
  bench,
}) => {
  await openLesson(page)
  await page.getByRole('button', { name: 'What will the slopes look like?', exact: true }).click()
  const signs = page.getByRole('group', { name: 'Signs of q′' })
  await expect(page.getByText('mark where it is positive and where negative')).toBeVisible()
  await signs.getByRole('button', { name: 'Cut' }).click()
  const stretch = (i: number) => signs.getByRole('button').nth(i)
  await stretch(1).click()
  await page.getByRole('button', { name: 'Uncover q′' }).click()
  const told = page.getByRole('status').filter({ hasText: 'Your signs' })
  await expect(told).toContainText(/right over \d+ %/)
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText('mark where it is positive and where negative')).toBeVisible()
  await stretch(1).click()
  await page.getByRole('button', { name: 'Uncover q′' }).click()
  await expect(page.getByRole('list', { name: 'Earlier tries' })).toContainText('Try 1: signs')
  await bench.saved()
  await page.reload()
  // The study itself has no such answers; its step has.
  await expect(page.getByRole('list', { name: 'Earlier tries' })).toHaveCount(0)
  await page.getByRole('button', { name: 'What will the slopes look like?', exact: true }).click()
  await expect(page.getByRole('list', { name: 'Earlier tries' })).toContainText('Try 1: signs')
  await page.getByRole('button', { name: 'Clear', exact: true }).click()
  await expect(page.getByRole('list', { name: 'Earlier tries' })).toHaveCount(0)
})

test.describe('with reduced motion', () => {
  test.use({ contextOptions: { reducedMotion: 'reduce' } })
  test('a step is there at once, and nothing plays by itself', async ({ page, bench }) => {
    await openLesson(page)
    await page.getByRole('button', { name: 'Where it stands still', exact: true }).click()
    expect(await bench.valueOf(bench.slider('a'))).toBe(0.5)
    await page.waitForTimeout(400)
    expect(await bench.valueOf(bench.slider('a'))).toBe(0.5)
    await page.locator('body').press('p')
    await page.keyboard.press('Space')
    await expect.poll(() => bench.valueOf(bench.slider('a'))).toBeGreaterThan(0.6)
  })
})

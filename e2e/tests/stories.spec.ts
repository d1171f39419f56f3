import { expect, test } from '../support/fixtures'

// Each step of a list is one thing that somebody does; twelve of them are to be enough.
const most = 12

test('a body on a track of pieces, its rate behind a switch, a title and the formula: in few actions', async ({
  page,
  bench,
}) => {
  let actions = 0
  const act = async (what: Promise<unknown>) => {
    actions += 1
    await what
  }
  await act(bench.open('w(x) = 2 + sin x if x < 4; 2 + sin 4 otherwise, for 0 ≤ x ≤ 9'))
  await act(bench.say('marker raft on w, caption {w(a)} m'))
  await act(bench.say('part How fast'))
  await act(bench.say('rate'))
  await bench.line(/^Rate of change/).hover()
  await act(page.getByRole('button', { name: 'Look of line 3' }).click())
  await act(page.getByRole('radio', { name: 'plum' }).click())
  await act(page.getByLabel('Stroke').selectOption('dotted'))
  await act(page.keyboard.press('Escape'))
  await act(page.getByRole('button', { name: 'Switch of part A on the deck' }).click())
  await act(bench.say('note $w(x)$ = {formula w}'))
  await act(bench.say('title A raft on the swell'))
  expect(actions).toBeLessThanOrEqual(most)

  await expect(page.getByRole('note', { name: 'A raft on the swell' })).toBeVisible()
  await expect(page.locator('.katex').filter({ hasText: 'sin' }).first()).toBeVisible()
  await expect(page.locator('[data-body]').first()).toBeVisible()
  const rate = page.locator('path[data-item="curve"], path[data-item^="over."]').last()
  await expect(rate).toHaveAttribute('d', /^M/)
  const deck = page.getByRole('group', { name: 'Deck switches' })
  await deck.getByRole('switch', { name: 'How fast' }).click()
  await expect(rate).not.toHaveAttribute('d', /^M/)
  await expect(bench.line(/^Rate of change/)).toBeVisible()
})

test('a story of an accumulation in three parts: in few actions', async ({ page, bench }) => {
  let actions = 0
  const act = async (what: Promise<unknown>) => {
    actions += 1
    await what
  }
  await act(bench.open('f(t) = 1 + 4 sin(0.6t) for 0 ≤ t ≤ 10'))
  await act(bench.say('part Strips'))
  await act(bench.say('area under f from 0 to a with 10 strips'))
  await act(bench.say('part What has come together'))
  await act(bench.say('accumulate f from 0'))
  await act(bench.say('marker droplet on A, caption {A(a)} ML'))
  await act(bench.say('part In words'))
  await act(bench.say('note The flow is {f(a)}.'))
  for (const letter of ['A', 'B', 'C']) {
    await act(page.getByRole('button', { name: `Switch of part ${letter} on the deck` }).click())
  }
  expect(actions).toBeLessThanOrEqual(most)

  const deck = page.getByRole('group', { name: 'Deck switches' })
  await expect(deck.getByRole('switch')).toHaveCount(3)
  // The marker's height is the exact value beside the strips: ∫ = t + (20/3)(1 − cos 0.6t).
  await bench.slider('Place a').focus()
  await page.keyboard.press('End')
  const whole = 10 + (20 / 3) * (1 - Math.cos(6))
  await expect(page.locator('output[aria-label=height]')).toHaveText(whole.toFixed(3))
  await expect(page.getByRole('note', { name: /^The flow is −0\.118/ })).toBeVisible()
  await deck.getByRole('switch', { name: 'In words' }).click()
  await expect(page.getByRole('note', { name: /^The flow/ })).toHaveCount(0)
})

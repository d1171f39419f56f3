import { expect, test } from '../support/fixtures'

test('an exam question: given f′′ on a closed span, everything is read off with reasons', async ({
  page,
  bench,
}) => {
  await bench.open('g(x) = 2 sin(x) - x/3 + 0.4')
  await bench.say('features of g on 0 to 7')
  const table = page.getByRole('table', { name: 'Features' })
  // By mpmath: turning points at arccos(1/6) and 2π − arccos(1/6), zero at 2.8613…
  for (const [kind, x, y] of [
    ['high', '1.403', '1.904'],
    ['zero', '2.861', '0.000'],
    ['low', '4.880', '−3.199'],
  ]) {
    const row = table.getByRole('row').filter({ hasText: x! })
    await expect(row).toContainText(kind!)
    await expect(row).toContainText(y!)
  }
  await expect(table).toContainText('g is continuous there and g′ goes + to −')
  await expect(bench.working).toContainText('Complete on [0, 7]')
  await bench.button('Candidates · 4').click()
  await expect(page.getByRole('table', { name: 'Candidates' })).toContainText('highest')
  await bench.say("conclude g as f'' on 0 to 7")
  const line = bench.working.getByRole('listitem', { name: /^Taking g as f′′/ })
  await line.getByRole('combobox', { name: 'f', exact: true }).selectOption("f'")
  await expect(line).toContainText('f′ rises on ≈ [0, 2.861], because f′′ > 0 inside.')
  await expect(line).toContainText(
    'f′ has a local maximum at x ≈ 2.861, because f′′ goes + to − there.',
  )
  await line.getByText('f′ falls on').hover()
  await expect(bench.lane('g').locator('[data-highlight]')).toBeVisible()
})

test('a graph that hides two turning points says so, goes there, comes back, shows both', async ({
  page,
  bench,
}) => {
  // A bump of 0.003 on a slope of 0.001: its high and low lie within a pixel of each other.
  await bench.open('w(t) = 8 - 0.1t + 0.004 e^(-((t - 20)/0.02)^2) for 0 ≤ t ≤ 60')
  const lane = bench.lane('w')
  const warning = lane.getByText(/^2 turning points between t = .* do not show in this frame/)
  await expect(warning).toBeVisible()
  await lane.getByRole('button', { name: 'Show both scales' }).click()
  const inset = page.getByRole('figure', { name: /^Inset of w: t from (19|20)/ })
  await expect(inset).toBeVisible()
  // It keeps off the words, and shows both turning points as rings.
  const [box, words] = [(await inset.boundingBox())!, (await warning.boundingBox())!]
  const isApart =
    box.y >= words.y + words.height - 2 ||
    box.y + box.height <= words.y + 2 ||
    box.x >= words.x + words.width - 2 ||
    box.x + box.width <= words.x + 2
  expect(isApart).toBe(true)
  await expect(inset.locator('[data-item^="turn"]')).toHaveCount(2)
  await bench.saved()
  await page.reload()
  await expect(inset).toBeVisible()
  await bench.button('Close the inset of w').click()
  await expect(inset).toBeHidden()
  await lane.getByRole('button', { name: 'Go there' }).click()
  await expect(warning).toBeHidden()
  await bench.button('Come back').click()
  await expect(page.getByRole('spinbutton', { name: 't to' })).toHaveValue(/^6\d/)
  await bench.say('turning points of w')
  await expect(bench.working).toContainText('Complete')
  await expect(page.getByRole('table', { name: 'Features' }).getByRole('row')).toHaveCount(3)
})

test('zeros and inflections outside the frame are told, and not on a covered lane', async ({
  page,
  bench,
}) => {
  // cos on [0, 6]: zeros and inflections at π/2 and 3π/2, a low at π.
  await bench.open('f(x) = cos x for 0 ≤ x ≤ 6')
  const lane = bench.lane('f')
  const told = lane.getByText(/in this frame$/)
  const toField = page.getByRole('spinbutton', { name: 'x to', exact: true })
  await expect(toField).toHaveValue(/^6/)
  await expect(told).toBeHidden()
  await toField.fill('4')
  await toField.press('Enter')
  await expect(told).toHaveText('1 zero and 1 inflection at x = 4.71 do not show in this frame')
  await toField.fill('1')
  await toField.press('Enter')
  await expect(told).toHaveText(
    '1 turning point, 2 zeros and 2 inflections between x = 1.57 and 4.71 do not show in this frame',
  )
  await lane.getByRole('button', { name: 'Go there' }).click()
  await expect(told).toBeHidden()
  await bench.button('Come back').click()
  await expect(toField).toHaveValue('1')
  await expect(told).toBeVisible()
  await bench.button('Heights of f').click()
  await page.getByRole('checkbox', { name: /Covered/ }).check()
  await page.keyboard.press('Escape')
  await expect(told).toBeHidden()
})

test('the shortest cable: the moving length, its curve and the proven least', async ({ bench }) => {
  await bench.open('f(x) = x^2/4 for -10 <= x <= 10')
  await bench.say('distance from f to (3, 1)')
  const line = bench.working.getByRole('listitem', { name: /^Distance L\(x\) from f/ })
  await expect(line).toContainText(/No shorter distance on \[−10, 10\]: proven/)
  await expect(bench.lane('L')).toBeVisible()
  await bench.drag(bench.slider('Place a'), 90)
  const a = await bench.valueOf(bench.slider('Place a'))
  const length = line.locator('output[aria-label="length"]')
  expect(Number(await length.getAttribute('data-value'))).toBeCloseTo(
    Math.hypot(a - 3, a ** 2 / 4 - 1),
    9,
  )
  const least = Number(await line.locator('output[aria-label="lowest"]').getAttribute('data-value'))
  expect(least).toBeLessThanOrEqual(Number(await length.getAttribute('data-value')))
})

test('predict first: draw on the covered lane, uncover, compare', async ({ page, bench }) => {
  await bench.open('f(x) = sin x')
  await bench.button('Show f′').click()
  await bench.button('Heights of f′').click()
  await page.getByRole('checkbox', { name: /Covered/ }).check()
  await page.keyboard.press('Escape')
  const box = (await bench.lane('f′').boundingBox())!
  await page.mouse.move(box.x + 200, box.y + box.height * 0.7)
  await page.mouse.down()
  await page.mouse.move(box.x + 500, box.y + box.height * 0.3, { steps: 20 })
  await page.mouse.up()
  // What was drawn is part of the study: it is there again after the page has gone.
  const guess = page.locator('[data-guess]').last()
  const drawn = (await guess.getAttribute('d'))!
  expect(drawn.length).toBeGreaterThan(100)
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(guess).toHaveAttribute('d', drawn)
  await bench.button('Uncover f′').click()
  await expect(page.getByText(/Your guess has the right sign over \d+ % of its way/)).toBeVisible()
  // One undo takes the uncovering back, another the whole drawing.
  await bench.button('Clear').click()
  await expect(guess).toHaveCount(0)
  await bench.button('Undo').click()
  await expect(guess).toHaveAttribute('d', /^M/)
})

test('a sign chart shows three rows and is copied', async ({ page, bench }) => {
  await bench.open('f(x) = x^3 - 3x')
  // The table above it takes up the panel: what is added below comes into view by itself.
  await bench.say('features of f on -3 to 3')
  await expect(page.getByRole('table', { name: 'Features' })).toBeVisible()
  await bench.say('sign chart of f on -3 to 3')
  const chart = page.getByRole('figure', { name: 'Sign chart' })
  await expect(chart).toContainText('f′: + from -3 to -1, − from -1 to 1, + from 1 to 3')
  await expect(chart).toBeInViewport({ ratio: 0.95 })
})

test('predict first: signs are marked stretch by stretch, and each is told right or wrong', async ({
  page,
  bench,
}) => {
  // f′ = cos x on [0, 6]: + to π/2, − to 3π/2, +.
  await bench.open('f(x) = sin x for 0 ≤ x ≤ 6')
  await bench.button('Show f′').click()
  await bench.button('Heights of f′').click()
  await page.getByRole('checkbox', { name: /Covered/ }).check()
  await page.keyboard.press('Escape')
  const signs = page.getByRole('group', { name: 'Signs of f′' })
  const stretches = signs.getByRole('button', { name: /^From/ })
  await signs.getByRole('button', { name: 'Cut' }).click()
  await signs.getByRole('button', { name: 'Cut' }).click()
  await expect(stretches).toHaveCount(3)
  // A cut is moved by the pointer or by keys.
  const first = page.getByRole('slider', { name: 'Cut 1 of f′' })
  await bench.drag(first, 15)
  const moved = await bench.valueOf(first)
  await first.focus()
  await page.keyboard.press('ArrowLeft')
  expect(await bench.valueOf(first)).toBeCloseTo(moved - 0.06, 9)
  const second = page.getByRole('slider', { name: 'Cut 2 of f′' })
  await second.focus()
  for (let i = 0; i < 29; i++) await page.keyboard.press('ArrowRight')
  await stretches.nth(0).click()
  await expect(stretches.nth(0)).toHaveAccessibleName(/: positive$/)
  await stretches.nth(1).click()
  await stretches.nth(1).click()
  await stretches.nth(2).click()
  await stretches.nth(2).click()
  await expect(stretches.nth(2)).toHaveAccessibleName(/: negative$/)
  await bench.button('Uncover f′').click()
  await expect(
    page.getByText(/Your signs are right over \d+ % of what you marked; 2 of 2/),
  ).toBeVisible()
  const verdicts = page.getByRole('group', { name: 'Signs marked for f′' })
  await expect(verdicts).toContainText('+ ✓')
  await expect(verdicts).toContainText('− ✓')
  await expect(verdicts).toContainText('− ✗')
  await bench.button('Clear').click()
  await expect(verdicts).toBeHidden()
})

test('from a graph of f′ with a value given, f is drawn', async ({ page, bench }) => {
  await bench.open('g(x) = 3x^2 - 3 for -2 ≤ x ≤ 3')
  await bench.say("conclude g as f'")
  await bench.button(/^Draw f by accumulation/).click()
  const line = bench.working.getByRole('listitem', { name: /^Let f′\(x\) = g\(x\)/ })
  await line.getByRole('button', { name: '0', exact: true }).click()
  await page.keyboard.type('5')
  await page.keyboard.press('Enter')
  await bench.say('value of f at 1')
  // x³ - 3x + 7 at 1, by hand.
  await expect(bench.output('Value of f at x = 1', 'value')).toHaveText('5')
})

test('a curve given by its derivative asks for a value, and a theorem tells which condition fails', async ({
  bench,
}) => {
  await bench.open("f'(x) = -1 if x < 1; 2 otherwise for -2 ≤ x ≤ 4")
  const given = bench.working.getByRole('listitem', { name: /^Let f′\(x\)/ })
  await expect(given).toContainText('f(−2) = 0 is taken until another value is typed')
  await expect(given).toContainText('At x = 1, f′ jumps, so f has a kink there.')
  await expect(bench.lane('f')).toBeVisible()
  await expect(bench.lane('f′')).toBeVisible()
  await bench.say('mean value theorem')
  const theorem = bench.working.getByRole('listitem', { name: /^Mean value theorem for f/ })
  await expect(theorem).toContainText('f is not differentiable on (−2, 4): at x = 1 it has a kink.')
  await theorem.getByRole('combobox').selectOption({ label: 'Extreme value theorem' })
  // f falls by 3 to x = 1 and rises by 6 from there.
  const other = bench.working.getByRole('listitem', { name: /^Extreme value theorem for f/ })
  await expect(other.locator('output').filter({ hasText: /^−3$/ })).toBeVisible()
})

import { expect, test } from '../support/fixtures'

const unique = (word: string) => `${word} ${Math.random().toString(36).slice(2, 8)}`

test('demo studies of the lagoon are there, each with a drawn thumbnail', async ({ page }) => {
  await page.goto('/')
  const list = page.getByRole('list', { name: 'Studies' })
  for (const title of ['A hidden ripple', 'Boardwalk joins', 'Pump settings', 'The flood tide']) {
    // Other tests have made studies since, so that these may be on a later page of the list.
    await page.getByRole('searchbox', { name: 'Search studies' }).fill(title)
    const row = list
      .getByRole('listitem')
      .filter({ has: page.getByRole('link', { name: title, exact: true }) })
    await expect(row.locator('svg path.stroke-kelp')).toHaveAttribute('d', /^M.{100,}/)
  }
  await page.getByRole('link', { name: 'The flood tide' }).click()
  await expect(page.locator('output[aria-label=slope]')).toHaveText('−3.191 ML/h per h')
  await expect(page.locator('output[aria-label=line]')).toHaveText('y = −3.191t + 15.758')
})

test('a demo with a kink says why there is no slope', async ({ page, bench }) => {
  await page.goto('/')
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('Boardwalk')
  await page.getByRole('link', { name: 'Boardwalk joins' }).click()
  await expect(bench.line('Value of h′ at x = 6').getByRole('alert')).toContainText(
    'no slope at x = 6: h has a kink here',
  )
})

test('new, rename, duplicate, delete and undo', async ({ page, bench }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New study' }).click()
  await expect(bench.lane('f')).toBeVisible()
  const title = unique('Ebb')
  await page.getByRole('button', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill(title)
  await page.keyboard.press('Enter')
  await bench.saved()
  await page.getByRole('link', { name: /to the studies/ }).click()
  const link = (name: string) => page.getByRole('link', { name, exact: true })
  await expect(link(title)).toBeVisible()
  const first = page
    .getByRole('list', { name: 'Studies' })
    .getByRole('listitem')
    .filter({ has: page.getByRole('link') })

  const more = async (name: string, choice: string) => {
    await page.getByRole('button', { name: `More for ${name}`, exact: true }).click()
    await page.getByRole('menuitem', { name: choice }).click()
  }
  const renamed = unique('Slack water')
  await more(title, 'Rename')
  await page.getByRole('textbox', { name: 'Title' }).fill(renamed)
  await page.keyboard.press('Enter')
  await expect(link(renamed)).toBeVisible()
  await expect(link(title)).toBeHidden()
  await more(renamed, 'Duplicate')
  await expect(link(`${renamed} (copy)`)).toBeVisible()
  await expect(first.first()).toBeVisible()
  await more(renamed, 'Delete')
  await expect(link(renamed)).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(link(renamed)).toBeVisible()
  await link(renamed).click()
  await expect(bench.lane('f')).toBeVisible()
})

test('formulas are read as people write them', async ({ page, bench }) => {
  await bench.open('3sin^2 x + |x-1|')
  await expect(bench.line('Let f(x) = 3 sin(x)² + |x − 1|')).toBeVisible()
  await bench.open('g(t) = ln t')
  await expect(bench.line('Let g(t) = ln(t)')).toBeVisible()
  await bench.say('rate')
  await expect(bench.line('Rate of change g′(t) = 1/t if t > 0')).toBeVisible()
  await bench.open('e^2x')
  await bench.working.getByRole('button', { name: 'Use it' }).click()
  await expect(bench.line('Let f(x) = e^(2x)')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(bench.line('Let f(x) = e² x')).toBeVisible()
})

test('a curve is broken at its poles', async ({ bench }) => {
  await bench.open('1/x')
  const d = (await bench.lane('f').locator('path[data-item=curve]').getAttribute('d'))!
  expect(d.match(/M/g)).toHaveLength(2)
})

test('examples stand apart, each with a picture of its own; what was opened last stands first', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 - 1')
  await bench.saved()
  await bench.open('f(x) = x^3 - x')
  await bench.saved()
  await page.goto('/')
  const own = page.getByRole('list', { name: 'Studies', exact: true })
  const examples = page.getByRole('list', { name: 'Example studies' })
  await expect(page.getByRole('heading', { name: 'Examples' })).toBeVisible()
  // Others make studies at the same time: of these two the later one stands first.
  const mine = async () =>
    (await own.getByRole('link').allInnerTexts()).filter((text) =>
      ['f(x) = x² − 1', 'f(x) = x³ − x'].includes(text),
    )[0]
  await expect.poll(mine).toBe('f(x) = x³ − x')
  await expect(examples.getByRole('link', { name: 'The flood tide' })).toBeVisible()
  await expect(own.getByRole('link', { name: 'The flood tide' })).toHaveCount(0)
  const drawn = () =>
    examples
      .locator('svg')
      .evaluateAll((all) =>
        all
          .map((svg) => [...svg.querySelectorAll('path')].map((p) => p.getAttribute('d')).join())
          .filter((d) => d.length > 200),
      )
  await expect.poll(async () => (await drawn()).length, { timeout: 60_000 }).toBeGreaterThan(15)
  const pictures = await drawn()
  expect(new Set(pictures).size).toBe(pictures.length)
  // The older one, opened again, comes first.
  await own.getByRole('link', { name: 'f(x) = x² − 1' }).first().click()
  await expect(bench.working).toBeVisible()
  await page.goto('/')
  await expect.poll(mine).toBe('f(x) = x² − 1')
})

test.describe('with a browser of its own', () => {
  test.use({ ownPage: true })

  test('the list comes without what reads formulas; what is typed meanwhile is kept', async ({
    page,
  }) => {
    let scripts = 0
    page.on('requestfinished', (request) => {
      if (request.resourceType() !== 'script') return
      void request.sizes().then(({ responseBodySize }) => (scripts += responseBodySize))
    })
    await page.goto('/')
    await expect(
      page.getByRole('list', { name: 'Studies' }).getByRole('link').first(),
    ).toBeVisible()
    await page.waitForLoadState('networkidle')
    expect(scripts).toBeGreaterThan(50_000)
    expect(scripts).toBeLessThanOrEqual(200 * 1024)

    // The reader is long in coming: keys and Enter arrive before it.
    let release = () => {}
    const held = new Promise<void>((resolve) => (release = resolve))
    await page.route('**/assets/FunctionEntry*', async (route) => {
      await held
      await route.continue()
    })
    const field = page.getByRole('textbox', { name: 'Function' })
    await field.click()
    await page.keyboard.type('q(t) = t^2 - 3')
    await expect(field).toHaveValue('q(t) = t^2 - 3')
    await page.keyboard.press('Enter')
    release()
    await expect(page.getByRole('figure', { name: 'Lane q', exact: true })).toBeVisible()
  })

  test('half of a formula is typed before its reader stands, half after', async ({ page }) => {
    let release = () => {}
    const held = new Promise<void>((resolve) => (release = resolve))
    await page.route('**/assets/FunctionEntry*', async (route) => {
      await held
      await route.continue()
    })
    await page.goto('/')
    const field = page.getByRole('textbox', { name: 'Function' })
    await field.click()
    await page.keyboard.type('x^2 + ')
    release()
    await expect(page.locator('.cm-editor')).toBeVisible()
    await page.keyboard.type('2x')
    await expect(field).toHaveText('x^2 + 2x')
    await expect(field).toBeFocused()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('figure', { name: 'Lane f', exact: true })).toBeVisible()
  })

  test('a reader that cannot be fetched is told, and comes when the line is back', async ({
    page,
    context,
  }) => {
    await page.goto('/')
    await context.setOffline(true)
    const field = page.getByRole('textbox', { name: 'Function' })
    await field.fill('sin x')
    await expect(page.getByRole('alert')).toContainText('the server cannot be reached')
    await context.setOffline(false)
    await field.press('Enter')
    await expect(page.getByRole('figure', { name: 'Lane f', exact: true })).toBeVisible()
  })
})

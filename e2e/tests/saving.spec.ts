import { type Page } from '@playwright/test'
import { Bench, expect, test } from '../support/fixtures'

test.use({ ownPage: true })

const notSaved = (page: Page) => page.getByRole('status').filter({ hasText: 'Not saved' })
const idOf = (page: Page) => page.url().split('/').at(-1)!

test('a server that is busy or broken is asked again until the save is in', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 - 11')
  await bench.saved()
  const answers = [429, 500, 503]
  await page.route('**/api/studies/*', async (route) => {
    const status = route.request().method() === 'PUT' ? answers.shift() : undefined
    if (status === undefined) return route.continue()
    const error = { code: status === 429 ? 'too-many' : 'internal', message: 'no' }
    await route.fulfill({ status, json: { error }, headers: { 'retry-after': '1' } })
  })
  await bench.say('value at 2')
  await expect(notSaved(page)).toBeVisible()
  await expect(page.getByText(/asks for a pause; trying again in \d+ s/)).toBeVisible()
  await bench.saved()
  expect(answers).toEqual([])
  await page.reload()
  await expect(bench.line('Value of f at x = 2')).toBeVisible()
})

test('opening a study waits for a busy server, and says so', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 - 12')
  await bench.saved()
  let busy = 3
  await page.route('**/api/studies/*', (route) =>
    route.request().method() === 'GET' && busy-- > 0
      ? route.fulfill({ status: 429, json: { error: { code: 'too-many', message: 'wait' } } })
      : route.continue(),
  )
  await page.reload()
  await expect(page.getByText(/asks for a pause; it opens as soon as/)).toBeVisible()
  await expect(bench.line(/^Let f\(x\)/)).toBeVisible()
})

test('a study deleted elsewhere while it is open can be kept as a new one', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 - 13')
  await bench.saved()
  const gone = idOf(page)
  await page.request.delete(`/api/studies/${gone}`)
  await bench.say('value at 5')
  await expect(page.getByRole('alert')).toContainText('deleted elsewhere')
  // Its unsaved work is also there when the page is loaded again.
  await page.reload()
  await expect(page.getByRole('alert')).toContainText('deleted elsewhere')
  await bench.button('Keep it as a new study').click()
  await expect(page).not.toHaveURL(new RegExp(gone))
  await expect(bench.line('Value of f at x = 5')).toBeVisible()
  await bench.saved()
})

test('one tab saves, and the other’s unsaved work is still there after a reload', async ({
  page,
  bench,
  context,
}) => {
  await bench.open('f(x) = x^2 - 14')
  await bench.saved()
  const other = new Bench(await context.newPage())
  await other.page.goto(page.url())
  await other.working.waitFor()
  await other.page.route('**/api/studies/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  )
  await other.say('value at 7')
  await expect(notSaved(other.page)).toBeVisible()
  await bench.say('tangent')
  await bench.saved()
  await other.page.unroute('**/api/studies/*')
  await other.page.reload()
  await expect(other.line('Value of f at x = 7')).toBeVisible()
  await expect(other.page.getByRole('alert')).toContainText('changed elsewhere')
})

test('edits, then away and back or a reload at once: no conflict with oneself, nothing older', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 - 15')
  await bench.saved()
  const address = page.url()
  for (let round = 0; round < 6; round++) {
    await bench.say(`value at ${round + 2}`)
    await page.waitForTimeout(round * 150)
    if (round % 3 === 0) await page.reload()
    else if (round % 3 === 1) {
      await page.getByRole('link', { name: 'Yperkine, to the studies' }).click()
      await page.goBack()
    } else {
      await page.goto('about:blank')
      await page.goto(address)
    }
    await expect(bench.line(`Value of f at x = ${round + 2}`)).toBeVisible()
    await expect(page.getByRole('alert')).toHaveCount(0)
  }
  await bench.saved()
})

test('where the browser keeps nothing the study opens, and it says so', async ({ page, bench }) => {
  await page.addInitScript(() => {
    const refuse = () => {
      throw new DOMException('storage is refused', 'SecurityError')
    }
    for (const name of ['localStorage', 'sessionStorage', 'indexedDB']) {
      Object.defineProperty(window, name, { get: refuse })
    }
  })
  await bench.open('f(x) = x^2 - 16')
  await expect(page.getByRole('alert')).toContainText('This browser keeps nothing here')
  await bench.say('value at 3')
  await bench.saved()
  await bench.button('I know').click()
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.reload()
  await expect(bench.line('Value of f at x = 3')).toBeVisible()
})

test('unsaved work that cannot be read is kept, and can be had as a file', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 - 17')
  await bench.saved()
  await page.evaluate(
    (key) => sessionStorage.setItem(key, JSON.stringify({ from: 'tomorrow' })),
    `draft ${idOf(page)}`,
  )
  await page.reload()
  await expect(page.getByRole('alert')).toContainText('cannot be read any more')
  const download = page.waitForEvent('download')
  await bench.button('Save it as a file').click()
  const file = await (await download).createReadStream()
  const parts: string[] = []
  for await (const part of file) parts.push(String(part))
  expect(JSON.parse(parts.join(''))).toEqual({ from: 'tomorrow' })
  await bench.button('Drop it').click()
  await expect(page.getByRole('alert')).toHaveCount(0)
})

test('a study of more than 64 KB goes, too, when its page is left', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 - 18')
  await bench.saved()
  const address = page.url()
  const id = idOf(page)
  const { study, version } = (await (await page.request.get(`/api/studies/${id}`)).json()) as {
    study: { lines: object[] }
    version: number
  }
  // Readings no two of which are alike: they pack badly.
  const points = Array.from({ length: 4000 }, (_, i) => [i, Math.sin(i * 1.7) * 1000])
  const readings = { kind: 'readings', id: 'many', name: 'm', unit: '', points }
  const long = { ...study, lines: [...study.lines, readings] }
  expect(JSON.stringify(long).length).toBeGreaterThan(80_000)
  await page.request.put(`/api/studies/${id}`, {
    data: { version, study: long, saveId: 'from outside' },
  })
  await page.reload()
  await bench.working.waitFor()
  await bench.say('value of f at 9')
  await page.goto('about:blank')
  await page.goto(address)
  await expect(bench.line('Value of f at x = 9')).toBeVisible()
  await bench.saved()
  const kept = await (await page.request.get(`/api/studies/${id}`)).text()
  expect(kept).toContain('"place": "9"')
})

test('a frame that no screen can show is told, with the way back', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 - 19')
  await bench.saved()
  const id = idOf(page)
  const { study, version } = (await (await page.request.get(`/api/studies/${id}`)).json()) as {
    study: object
    version: number
  }
  const thin = { ...study, frame: [0, 1e-310] }
  await page.request.put(`/api/studies/${id}`, { data: { version, study: thin, saveId: 'thin' } })
  await page.goto('/')
  await expect(page.getByRole('link', { name: /x² − 19/ }).first()).toBeVisible()
  await page.goto(`/studies/${id}`)
  await expect(bench.lane('f').getByRole('note')).toContainText('too narrow to be drawn')
  await bench.lane('f').getByRole('button', { name: 'Fit' }).click()
  await expect(bench.lane('f').getByRole('note')).toHaveCount(0)
})

test('the list is searched, narrowed by topic, and goes on where a page ends', async ({ page }) => {
  await page.goto('/')
  const list = page.getByRole('list', { name: 'Studies' })
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('HIGHS flood')
  await expect(list.getByRole('link')).toHaveText(['Highs and lows of the flood'])
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('no such study')
  await expect(page.getByText('No study is called or about that.')).toBeVisible()
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('')
  await page.getByRole('button', { name: 'readings', exact: true }).click()
  await expect(list.getByRole('link', { name: 'Readings at the gauge' })).toBeVisible()
  await expect(list.getByRole('link', { name: 'The flood tide' })).toHaveCount(0)
  await page.getByRole('button', { name: 'readings', exact: true }).click()
  // What other tests have made may stand before it: it is searched for.
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('The flood tide')
  await expect(list.getByRole('link', { name: 'The flood tide' })).toBeVisible()
  await page.getByRole('searchbox', { name: 'Search studies' }).fill('')

  // A list of more than one page goes on where this one has ended.
  const asked: (string | null)[] = []
  await page.route('**/api/studies?*', async (route) => {
    const url = new URL(route.request().url())
    const cursor = url.searchParams.get('cursor')
    asked.push(cursor)
    url.searchParams.delete('cursor')
    const answer = (await (await route.fetch({ url: String(url) })).json()) as {
      studies: object[]
    }
    const studies = cursor ? answer.studies.slice(1, 3) : answer.studies.slice(0, 1)
    await route.fulfill({ json: { studies, next: cursor ? null : 'one' } })
  })
  await page.reload()
  const examples = page.getByRole('list', { name: 'Example studies' })
  await expect(examples.getByRole('link')).toHaveCount(1)
  await page.getByRole('button', { name: 'Show more examples' }).click()
  await expect(examples.getByRole('link')).toHaveCount(3)
  await expect(page.getByRole('button', { name: 'Show more examples' })).toHaveCount(0)
  expect(asked).toContain('one')
})

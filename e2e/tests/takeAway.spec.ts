import type { Browser, Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { pathToFileURL } from 'node:url'
import { Bench, expect, test } from '../support/fixtures'

test.use({ ownPage: true })

const title = '</script><script>document.title="caught"</script> ]]> “Ünï” 😀'

async function rename(page: Page, to: string) {
  await page.getByRole('button', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill(to)
  await page.keyboard.press('Enter')
}

/** The page that is saved, with the words for the speaker or without. */
async function takenAway(page: Page, file: string, speakers = false) {
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Take-away page' }).click()
  const panel = page.getByRole('dialog', { name: 'Take-away page' })
  if (speakers) await panel.getByLabel('With the words for the speaker').check()
  const download = page.waitForEvent('download')
  await panel.getByRole('button', { name: 'Save the page' }).click()
  await (await download).saveAs(file)
  await panel.getByRole('button', { name: 'Done' }).click()
  return readFileSync(file, 'utf8')
}

/** The page from a file, in a browser without a network; what goes wrong and what is asked for. */
async function opened(browser: Browser, file: string, { scripts = true, width = 1280 } = {}) {
  const context = await browser.newContext({
    offline: true,
    javaScriptEnabled: scripts,
    viewport: { width, height: 800 },
  })
  const alone = await context.newPage()
  const faults: string[] = []
  alone.on('pageerror', (error) => faults.push(error.message))
  alone.on('console', (message) => {
    if (message.type() === 'error') faults.push(message.text())
  })
  const asked: string[] = []
  alone.on('request', (request) => asked.push(request.url().slice(0, 5)))
  await alone.goto(pathToFileURL(file).href)
  return { alone, faults, asked, context }
}

async function openExample(page: Page, title: string) {
  const found = await page.request.get(`/api/studies?search=${encodeURIComponent(title)}`)
  const { studies } = (await found.json()) as { studies: { id: string; title: string }[] }
  await page.goto(`/studies/${studies.find((study) => study.title === title)!.id}`)
  await page.getByRole('region', { name: 'Working' }).waitFor()
}

test('a take-away page moves by itself, from a file, without a network, and is a study again', async ({
  page,
  bench,
  browser,
}, info) => {
  test.setTimeout(240_000)
  await bench.open('f(x) = x^2 - 3 for -4 <= x <= 4')
  await bench.say('tangent to f at x = a')
  await bench.say('area under f from 0 to 2')
  await bench.say('note here is {f(a)} & <b>there</b>')
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await rename(page, title)
  await bench.saved()
  const file = info.outputPath('taken.html')
  const html = await takenAway(page, file)
  expect(html.length).toBeLessThan(2_500_000)
  expect(gzipSync(html).length).toBeLessThan(900_000)
  const head = html.slice(0, html.indexOf('<style>'))
  expect(head).toMatch(/default-src 'none'; script-src 'sha256-[^']+'/)
  // Nothing of where it came from: no address and no id.
  expect(html).not.toContain('127.0.0.1')
  expect(html).not.toContain(/studies\/([\w-]+)/.exec(page.url())![1]!)

  const { alone, faults, asked, context } = await opened(browser, file)
  const read = new Bench(alone)
  await expect(alone.getByRole('heading', { level: 1 })).toHaveText(title)
  await expect(alone.getByRole('heading', { level: 1 })).toBeVisible()
  expect(await alone.title()).not.toBe('caught')
  // The tangent follows the slider: at −4 its slope is −8, at 4 it is 8.
  const slope = read.output('Tangent to f at x = a', 'slope')
  await read.slider('a').focus()
  await alone.keyboard.press('Home')
  await expect(slope).toHaveText('−8')
  await alone.keyboard.press('End')
  await expect(slope).toHaveText('8')
  await expect(alone.getByText('to read', { exact: true })).toHaveCount(0)
  // x³/3 − 3x over [0, 2] is −10/3, by hand.
  await expect(read.output(/^Area under f/, 'exact')).toHaveText('−3.333')
  await expect(alone.getByText(/from −3(\.000)? to 13(\.000)?, proven/)).toBeVisible()
  await alone.getByRole('button', { name: /^Play a/ }).click()
  const before = await read.valueOf(read.slider('a'))
  await expect.poll(() => read.valueOf(read.slider('a'))).not.toBe(before)
  await alone
    .getByRole('button', { name: /^(Pause|Stop)/ })
    .first()
    .click()
  // A flag is dragged on the ruler as it is in the workbench.
  const flag = alone.getByRole('slider', { name: /^Place a/ })
  const held = await read.valueOf(read.slider('a'))
  await read.drag(flag, held > 0 ? -150 : 150)
  await expect.poll(() => read.valueOf(read.slider('a'))).not.toBe(held)
  const saved = alone.waitForEvent('download')
  await alone.getByRole('button', { name: 'Save the study file' }).click()
  const study = JSON.parse(readFileSync(await (await saved).path(), 'utf8')) as { title: string }
  expect(study.title).toBe(title)
  expect(faults).toEqual([])
  expect(asked.filter((url) => !/^(?:file:|data:|blob:)/.test(url))).toEqual([])
  await context.close()

  // The page itself comes in again as a study.
  await page.goto('/')
  const renamed = html.replaceAll('“Ünï” 😀', 'again')
  await page.getByLabel('Study files').setInputFiles({
    ...{ name: 'taken.html', mimeType: 'text/html', buffer: Buffer.from(renamed) },
  })
  await expect(page.getByRole('status').filter({ hasText: 'One study came in.' })).toBeVisible()
})

test('words for the speaker stay behind unless they are asked for; a page without a study is told', async ({
  page,
}, info) => {
  await openExample(page, 'How fast at this very moment?')
  expect(await takenAway(page, info.outputPath('a.html'))).not.toContain('Let the class look at')
  expect(await takenAway(page, info.outputPath('b.html'), true)).toContain('Let the class look at')
  await page.goto('/')
  await page.getByLabel('Study files').setInputFiles({
    ...{ name: 'other.html', mimeType: 'text/html' },
    buffer: Buffer.from('<!doctype html><html><body><p>Nothing</p></body></html>'),
  })
  await expect(page.getByRole('dialog')).toContainText('other.html')
})

test('in a take-away page a lesson is gone through and a covered lane is guessed at', async ({
  page,
  browser,
}, info) => {
  await openExample(page, 'How fast at this very moment?')
  const lesson = info.outputPath('lesson.html')
  await takenAway(page, lesson)
  const first = await opened(browser, lesson)
  const steps = first.alone.getByRole('list', { name: 'Steps' }).getByRole('button')
  const run = new Bench(first.alone).output(/^Secant/, 'run')
  const before = await run.textContent()
  await steps.nth(2).click()
  await expect(steps.nth(2)).toHaveAttribute('aria-current', 'step')
  await expect(run).not.toHaveText(before!)
  await first.alone.getByRole('button', { name: 'Previous in lesson' }).click()
  await expect(steps.nth(1)).toHaveAttribute('aria-current', 'step')
  expect(first.faults).toEqual([])
  await first.context.close()

  await openExample(page, 'Guess the rate first')
  const guess = info.outputPath('guess.html')
  await takenAway(page, guess)
  const { alone, faults, context } = await opened(browser, guess)
  const uncover = alone.getByRole('button', { name: /^Uncover/ }).first()
  const box = (await uncover.boundingBox())!
  await alone.mouse.move(box.x - 200, box.y + 60)
  await alone.mouse.down()
  await alone.mouse.move(box.x + 100, box.y + 90, { steps: 8 })
  await alone.mouse.up()
  await uncover.click()
  await expect(alone.getByText(/Your guess has the right sign over \d+ % of its way/)).toBeVisible()
  expect(faults).toEqual([])
  await context.close()
})

test('a take-away page is read where no script may run: picture, typeset formulas, results', async ({
  page,
  bench,
  browser,
}, info) => {
  await bench.open('f(x) = x^2 - 3 for -4 <= x <= 4')
  await bench.say('area under f from 0 to 2')
  await bench.say('note <b>here</b> stands')
  await bench.saved()
  const file = info.outputPath('still.html')
  await takenAway(page, file)
  const { alone, faults, context } = await opened(browser, file, { scripts: false, width: 390 })
  const working = alone.getByRole('region', { name: 'Working' })
  await expect(working.locator('.katex').first()).toBeVisible()
  // x³/3 − 3x over [0, 2] is −10/3, by hand.
  await expect(working.locator('output').filter({ hasText: '−3.333' }).first()).toBeVisible()
  await expect(alone.getByRole('img').first()).toBeVisible()
  await expect(alone.getByText('<b>here</b>').first()).toBeAttached()
  // Nothing is offered that would not answer, and nothing is wider than the page.
  await expect(alone.getByRole('button')).toHaveCount(0)
  expect(
    await alone.evaluate(() => document.documentElement.scrollWidth - innerWidth),
  ).toBeLessThanOrEqual(0)
  expect(faults).toEqual([])
  await context.close()
})

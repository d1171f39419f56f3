import type { Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { expect, test } from '../support/fixtures'

const run = (tool: string, ...args: string[]) => execFileSync(tool, args, { encoding: 'utf8' })
const pagesOf = (path: string) => run('pdftotext', '-layout', path, '-').split('\f').slice(0, -1)
const infoOf = (path: string) => run('pdfinfo', path)

async function printing(page: Page) {
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Print sheet' }).click()
  const panel = page.getByRole('dialog', { name: 'Print sheet' })
  await expect(panel.getByRole('img', { name: /^Preview/ })).toBeVisible()
  return panel
}
async function saved(page: Page) {
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as PDF' }).click()
  const file = await download
  return { path: await file.path(), name: file.suggestedFilename() }
}

test('a sheet has picture, working and tables whose heads stand on each page; nothing is cut', async ({
  page,
  bench,
}) => {
  await bench.open('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  await bench.say('tangent at 2')
  await bench.say('table of q by 0.1')
  const panel = await printing(page)
  const { path, name } = await saved(page)
  expect(name).toMatch(/sheet\.pdf$/)
  expect(infoOf(path)).toMatch(/Page size:\s+595\.5 x 842\.25 pts/)
  const pages = pagesOf(path)
  expect(pages.length).toBeGreaterThan(2)
  expect(pages[0]).toContain('Tangent to q at t = 2')
  // By calculus: q′(2) = 3.6 cos 1.8 − 0.3.
  expect(pages[0]).toContain((3.6 * Math.cos(1.8) - 0.3).toFixed(3).replace('-', '−'))
  const withRows = pages.filter((text) => (text.match(/^\s*\d+\.\d/gm) ?? []).length > 5)
  expect(withRows.length).toBeGreaterThan(1)
  for (const text of withRows) expect(text).toMatch(/Values[^]*q\(t\)/)
  pages.forEach((text, i) => {
    expect(text).toContain(`${i + 1} of ${pages.length}`)
    // No page with two lines on it.
    expect(text.split('\n').filter((line) => line.trim() !== '').length).toBeGreaterThan(3)
  })
  // All rows of the table: 0.1 to 9.9, and 0 to 10, which have no decimals.
  const firsts = pages.join('\n').match(/^\s*\d\.\d\s/gm) ?? []
  expect(firsts).toHaveLength(90)
  // Every word lies on its page.
  const boxes = run('pdftotext', '-bbox', path, '-')
  const ends = [
    ...boxes.matchAll(/xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.]+)" yMax="([\d.]+)"/g),
  ]
  expect(ends.length).toBeGreaterThan(200)
  for (const [, x0, y0, x1, y1] of ends) {
    expect(Number(x0)).toBeGreaterThan(0)
    expect(Number(y0)).toBeGreaterThan(0)
    expect(Number(x1)).toBeLessThan(595.5)
    expect(Number(y1)).toBeLessThan(842.25)
  }

  await panel.getByRole('checkbox', { name: 'Answers' }).uncheck()
  await panel.getByLabel('Room to write').selectOption('8')
  await panel.getByLabel('Paper').selectOption('Letter')
  await panel.getByLabel('Page', { exact: true }).selectOption('landscape')
  const empty = await saved(page)
  expect(infoOf(empty.path)).toMatch(/Page size:\s+792 x 612 pts/)
  const text = pagesOf(empty.path).join('\n')
  expect(text).toContain('Tangent to q at t = 2')
  expect(text).toContain('slope')
  expect(text).not.toContain((3.6 * Math.cos(1.8) - 0.3).toFixed(3).replace('-', '−'))
})

test('conclusions, proofs, signs and sums stand on the sheet with the answers, and go with them', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^3 - 3x for -2 <= x <= 2')
  await bench.say('turning points')
  await bench.say('sign chart of f')
  await bench.say('area under f over 0 to 1 with 4 strips')
  await expect(bench.working.getByText('Every change of sign is here: proven')).toBeVisible()
  const panel = await printing(page)
  const read = async () => pagesOf((await saved(page)).path).join('\n')
  const told = await read()
  // By calculus: f′ = 3x² − 3 is 0 at −1 and 1, and f at −√3, 0 and √3.
  expect(told).toContain('Every change of sign is here: proven')
  expect(told).toContain('f falls throughout, so left heights are too high there')
  expect(told).toMatch(/f′\s+\+[^\n]*−[^\n]*\+/)
  expect(told).toContain('1.732')
  await panel.getByRole('checkbox', { name: 'Answers' }).uncheck()
  const asked = await read()
  expect(asked).not.toMatch(/proven|falls/)
  expect(asked).not.toMatch(/f′\s+\+[^\n]*−/)
})

test('the browser prints the pages and nothing else, each on its paper', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 for -3 <= x <= 3')
  await bench.say('table of f by 0.1')
  const panel = await printing(page)
  await page.evaluate(() => {
    window.print = () => undefined
  })
  await panel.getByRole('button', { name: 'Print', exact: true }).click()
  const made = test.info().outputPath('printed.pdf')
  writeFileSync(made, await page.pdf({ preferCSSPageSize: true, printBackground: true }))
  const count = Number(/Pages:\s+(\d+)/.exec(infoOf(made))![1])
  expect(count).toBeGreaterThan(1)
  expect(infoOf(made)).toMatch(/Page size:\s+59[45](?:\.\d+)? x 84[12](?:\.\d+)? pts/)
  // Words are outlines there: the page itself would bring text.
  expect(run('pdftotext', made, '-')).not.toContain('Working')
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')))
  await expect(page.locator('.print-pages')).toHaveCount(0)
})

test('a handout shows one picture a step, several on a page, in their order', async ({ page }) => {
  await page.goto('/')
  await page
    .getByRole('link', { name: 'How fast at this very moment?', exact: true })
    .first()
    .click()
  await page.getByRole('list', { name: 'Steps' }).waitFor()
  const panel = await printing(page)
  await panel.getByLabel('What is printed').selectOption('2')
  const { path } = await saved(page)
  const pages = pagesOf(path)
  expect(pages).toHaveLength(4)
  expect(pages[0]).toMatch(/1\. The water comes in[^]*2\. Two readings/)
  expect(pages[1]).toMatch(/3\. Closer together[^]*4\. As close as can be/)
  // What is to be guessed is covered on paper too.
  expect(pages[3]).toContain('q′ is covered')
  // Each step has its own values: the slopes of the secants differ.
  expect(pages[0]).not.toBe(pages[1])
  await panel.getByLabel('What is printed').selectOption('4')
  expect(pagesOf((await saved(page)).path)).toHaveLength(2)
})

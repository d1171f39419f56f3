import type { Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { expect, test } from '../support/fixtures'

const file = (name: string, text: string | Buffer) => ({
  ...{ name, mimeType: 'application/json' },
  buffer: typeof text === 'string' ? Buffer.from(text) : text,
})
const pick = (page: Page, ...files: ReturnType<typeof file>[]) =>
  page.getByLabel('Study files').setInputFiles(files)
const own = (page: Page) => page.getByRole('list', { name: 'Studies', exact: true })

/** The study file of a study made of a formula and some words. */
async function made(
  page: Page,
  bench: { open(f: string): Promise<void>; say(w: string): Promise<void> },
  title: string,
) {
  await bench.open('f(x) = x^2 - 3 for -4 <= x <= 4')
  await bench.say('tangent')
  await bench.say('note Here {f(a)} & <b>there</b>')
  await page.getByRole('button', { name: 'Keep as step' }).click()
  await page.getByRole('button', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill(title)
  await page.keyboard.press('Enter')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Study file' }).click()
  const saved = await download
  return { text: readFileSync(await saved.path(), 'utf8'), name: saved.suggestedFilename() }
}

test('a study goes out as a file and comes in again the same', async ({ page, bench }) => {
  const title = 'Out and in again'
  const { text, name } = await made(page, bench, title)
  expect(name).toBe('Out-and-in-again.yperkine.json')
  const other = text.replace(title, 'Come from elsewhere')
  await page.goto('/')
  await pick(page, file('a.json', other))
  await expect(page.getByRole('status').filter({ hasText: 'One study came in.' })).toBeVisible()
  await own(page).getByRole('link', { name: 'Come from elsewhere' }).first().click()
  await expect(bench.line('Tangent to f at x = a')).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Study file' }).click()
  const again = readFileSync(await (await download).path(), 'utf8')
  expect(JSON.parse(again)).toEqual(JSON.parse(other))
})

test('what would overwrite asks first; several come at once, dropped on the page', async ({
  page,
  bench,
}) => {
  const title = 'Twice the same'
  const { text } = await made(page, bench, title)
  await bench.saved()
  await page.goto('/')
  await pick(page, file('a.json', text.replace('x^2 - 3', 'x^2 - 5')))
  const asked = page.getByRole('dialog', { name: 'These titles are here already' })
  await asked.getByLabel(`What becomes of ${title}`).selectOption('leave')
  await asked.getByRole('button', { name: 'Done' }).click()
  await expect(own(page).getByRole('link', { name: title, exact: true })).toHaveCount(1)
  await pick(page, file('a.json', text.replace('x^2 - 3', 'x^2 - 5')))
  await asked.getByLabel(`What becomes of ${title}`).selectOption('replace')
  await asked.getByRole('button', { name: 'Done' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'One study came in.' })).toBeVisible()
  await expect(own(page).getByRole('link', { name: title, exact: true })).toHaveCount(1)
  await own(page).getByRole('link', { name: title, exact: true }).click()
  await expect(bench.line(/^Let f\(x\) = x² − 5/)).toBeVisible()

  await page.goto('/')
  await expect(own(page)).toBeVisible()
  const texts = ['One of two', 'Two of two'].map((one) => text.replace(title, one))
  const data = await page.evaluateHandle((all) => {
    const transfer = new DataTransfer()
    for (const [i, one] of all.entries()) transfer.items.add(new File([one], `${i}.json`))
    return transfer
  }, texts)
  await page.dispatchEvent('body', 'dragover', { dataTransfer: data })
  await expect(page.getByText('Drop study files here')).toBeVisible()
  await page.dispatchEvent('body', 'drop', { dataTransfer: data })
  await expect(page.getByRole('status').filter({ hasText: '2 studies came in.' })).toBeVisible()
  for (const one of ['One of two', 'Two of two'])
    await expect(own(page).getByRole('link', { name: one })).toHaveCount(1)
})

test('damaged, foreign and newer files are explained, and the good ones come in', async ({
  page,
  bench,
}) => {
  const { text } = await made(page, bench, 'Among bad ones')
  const study = JSON.parse(text) as Record<string, unknown>
  const json = (change: object) => JSON.stringify({ ...study, ...change })
  await page.goto('/')
  await pick(
    page,
    file('good.json', json({ title: 'The good one' })),
    file('cut.json', text.slice(0, 200)),
    file('newer.json', json({ tomorrow: 1 })),
    file('bad.json', json({ decimals: 'many', title: '' })),
    file('broken.zip', Buffer.from('PK\u0003\u0004 this is no zip')),
    file('<img src=x onerror=alert(1)>.json', '=1+1'),
  )
  const told = page.getByRole('dialog', { name: 'Not brought in' }).getByRole('alert')
  await expect(told).toContainText('cut.json')
  await expect(told).toContainText('this is not JSON')
  await expect(told).toContainText('newer version')
  await expect(told).toContainText('decimals')
  await expect(told).toContainText('title')
  await expect(told).toContainText('this zip is damaged')
  await expect(told).toContainText('<img src=x onerror=alert(1)>.json')
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(own(page).getByRole('link', { name: 'The good one' })).toHaveCount(1)
})

test('all studies go out as one zip that other programs open, and come in from it', async ({
  page,
  bench,
}) => {
  const { text } = await made(page, bench, 'In the zip')
  await bench.saved()
  await page.goto('/')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save all as a zip' }).click()
  const path = await (await download).path()
  const names = execFileSync(
    'python3',
    ['-c', 'import sys, zipfile; print("\\n".join(zipfile.ZipFile(sys.argv[1]).namelist()))', path],
    { encoding: 'utf8' },
  )
  expect(names).toContain('In-the-zip.yperkine.json')
  const inside = execFileSync(
    'python3',
    [
      '-c',
      'import sys, zipfile; sys.stdout.buffer.write(zipfile.ZipFile(sys.argv[1]).read(sys.argv[2]))',
      path,
      'In-the-zip.yperkine.json',
    ],
    { encoding: 'utf8' },
  )
  expect(JSON.parse(inside)).toEqual(JSON.parse(text))
  await pick(page, file('all.zip', readFileSync(path)))
  // Everything is here already: nothing comes unasked.
  const asked = page.getByRole('dialog', { name: 'These titles are here already' })
  await expect(asked.getByLabel('What becomes of In the zip')).toBeVisible()
})

test('the link of a study at its own desk says so, and offers the file', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2')
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Link' }).click()
  const panel = page.getByRole('dialog', { name: 'Link' })
  await expect(panel.getByRole('textbox')).toHaveValue(/\/studies\/[0-9a-f-]{36}$/)
  await expect(panel).toContainText('works on this machine only')
  const download = page.waitForEvent('download')
  await panel.getByRole('button', { name: 'Save the study file' }).click()
  expect((await download).suggestedFilename()).toMatch(/\.yperkine\.json$/)
})

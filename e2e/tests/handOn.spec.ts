import type { Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { expect, test } from '../support/fixtures'

/** Takes a picture by its menu item, and gives back the file and what it is called. */
async function taken(page: Page, item: string) {
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: item, exact: true }).click()
  const file = await download
  return { path: await file.path(), name: file.suggestedFilename() }
}
const run = (tool: string, ...args: string[]) => execFileSync(tool, args, { encoding: 'utf8' })

async function openExample(page: Page, title: string) {
  await page.goto('/')
  await page.getByRole('link', { name: title, exact: true }).first().click()
  await page.getByRole('region', { name: 'Working' }).waitFor()
  await expect(page.locator('path[data-item="curve"]').first()).toHaveAttribute('d', /^M/)
}

/** How far two pictures lie apart, as a share of black from white. */
const apart = (page: Page, a: Buffer, b: Buffer, types: [string, string]) =>
  page.evaluate(
    async ([one, other]) => {
      const pixels = async (url: string) => {
        const image = new Image()
        image.src = url
        await image.decode()
        const canvas = document.createElement('canvas')
        ;[canvas.width, canvas.height] = [480, 400]
        const context = canvas.getContext('2d')!
        context.drawImage(image, 0, 0, 480, 400)
        return context.getImageData(0, 0, 480, 400).data
      }
      const [p, q] = [await pixels(one!), await pixels(other!)]
      let sum = 0
      for (let i = 0; i < p.length; i++) sum += Math.abs(p[i]! - q[i]!)
      return sum / p.length / 255
    },
    [a, b].map((file, i) => `data:${types[i]};base64,${file.toString('base64')}`),
  )

for (const [title, words] of [
  [
    'A raft on the swell',
    ['A raft on the swell', '1.440 m', 'Going down:', 'distance from the buoy'],
  ],
  ['Three ways to the same water', ['18.750 ML', '0.369', 'more comes in']],
  ['How fast at this very moment?', ['time (h)']],
] as const) {
  test(`pictures of “${title}” are read by other programs, and show the same`, async ({ page }) => {
    await openExample(page, title)
    const svg = await taken(page, 'Picture as SVG')
    expect(svg.name).toMatch(/^[\p{L}\p{N}-]+\.svg$/u)
    run('xmllint', '--noout', svg.path)
    const text = readFileSync(svg.path, 'utf8')
    expect(text).toContain(`<title id="title">${title.replace(/'/g, '&#39;')}</title>`)
    expect(text).toMatch(/<desc id="description">.{30,}<\/desc>/)
    // Words are outlines: it looks the same where our fonts are not.
    expect(text).not.toContain('<text')
    const rendered = execFileSync('rsvg-convert', [svg.path], { maxBuffer: 50e6 })

    const png = await taken(page, 'Picture as PNG')
    const bitmap = readFileSync(png.path)
    const [width, height] = [bitmap.readUInt32BE(16), bitmap.readUInt32BE(20)]
    const box = /viewBox="0 0 (\d+) (\d+)"/.exec(text)!
    expect([width, height]).toEqual([2 * Number(box[1]), 2 * Number(box[2])])
    // A browser and another program draw the same.
    expect(await apart(page, bitmap, rendered, ['image/png', 'image/png'])).toBeLessThan(0.01)

    const pdf = await taken(page, 'Picture as PDF')
    const read = run('pdftotext', '-layout', pdf.path, '-').replace(/\s+/g, ' ')
    for (const word of words) expect(read).toContain(word)
    const fonts = run('pdffonts', pdf.path).trim().split('\n').slice(2)
    expect(fonts.length).toBeGreaterThan(1)
    for (const font of fonts) expect(font).toMatch(/Source(?:Sans3|Serif4).*\byes\b/)
    expect(run('pdfinfo', pdf.path)).toMatch(
      new RegExp(`Page size:\\s+${Number(box[1]) * 0.75} x [\\d.]+ pts`),
    )
    run('pdftoppm', '-r', '96', '-png', '-singlefile', pdf.path, `${pdf.path}-page`)
    const sheet = readFileSync(`${pdf.path}-page.png`)
    expect(await apart(page, bitmap, sheet, ['image/png', 'image/png'])).toBeLessThan(0.02)
  })
}

test('what is chosen for pictures holds for all of them', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 for -3 <= x <= 3')
  await bench.button('Show f′').click()
  await bench.say('tangent')
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: /How pictures are made/ }).click()
  const panel = page.getByRole('dialog', { name: 'How pictures are made' })
  await panel.getByLabel('Unit of size').selectOption('cm')
  await panel.getByRole('textbox', { name: 'Width' }).fill('12')
  await page.keyboard.press('Enter')
  await panel.getByLabel('Look of the picture').selectOption('black and white')
  await panel.getByRole('checkbox', { name: 'Ground' }).uncheck()
  await panel.getByRole('checkbox', { name: 'Working' }).check()
  await panel.getByLabel('Words in SVG').selectOption('text')
  await expect(panel.getByRole('img', { name: /Preview/ })).toBeVisible()
  await panel.getByRole('button', { name: 'Done' }).click()
  const { path } = await taken(page, 'Picture as SVG')
  run('xmllint', '--noout', path)
  const text = readFileSync(path, 'utf8')
  expect(text).toContain('width="12cm"')
  expect(text).toContain('>Tangent to f at x = a</text>')
  // Nothing has a colour, and the ground none at all.
  const colours = [...text.matchAll(/#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})/g)]
  expect(colours.length).toBeGreaterThan(5)
  for (const [, r, g, b] of colours) expect([g, b]).toEqual([r, r])
  expect(text).not.toMatch(/<rect width="\d+" height="\d+" fill/)
})

test('words of people are words in every format, and names of files are safe', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 for -3 <= x <= 3')
  const title = '<script>alert(1)</script> ]]> "a" & \\input{x} =1+1 شمس 😀'
  await page.getByRole('button', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill(title)
  await page.keyboard.press('Enter')
  await bench.say(`note ${title}`)
  const svg = await taken(page, 'Picture as SVG')
  expect(svg.name).toMatch(/^[\p{L}\p{M}\p{N}-]+\.svg$/u)
  run('xmllint', '--noout', svg.path)
  const text = readFileSync(svg.path, 'utf8')
  expect(text).not.toContain('<script')
  const told = await page.evaluate(
    (source) =>
      new DOMParser().parseFromString(source, 'image/svg+xml').querySelector('title')!.textContent,
    text,
  )
  expect(told).toBe(title)
  const pdf = await taken(page, 'Picture as PDF')
  expect(run('pdftotext', pdf.path, '-')).toContain('<script>alert(1)</script>')
  const study = await taken(page, 'Study file')
  expect(study.name).toMatch(/^[\p{L}\p{M}\p{N}-]+\.yperkine\.json$/u)
  expect((JSON.parse(readFileSync(study.path, 'utf8')) as { title: string }).title).toBe(title)

  // On paper, by the browser and as PDF: the title and the note as they were typed.
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Print sheet' }).click()
  const panel = page.getByRole('dialog', { name: 'Print sheet' })
  const download = page.waitForEvent('download')
  await panel.getByRole('button', { name: 'Save as PDF' }).click()
  const sheet = await download
  expect(sheet.suggestedFilename()).toMatch(/^[\p{L}\p{M}\p{N}-]+\.pdf$/u)
  const words = run('pdftotext', await sheet.path(), '-')
  expect(words).toContain('<script>alert(1)</script> ]]>')
  expect(words).toContain('\\input{x} =1+1')
  await page.evaluate(() => {
    window.print = () => undefined
  })
  await panel.getByRole('button', { name: 'Print', exact: true }).click()
  const printed = page.locator('.print-pages')
  await expect(printed).toHaveCount(1)
  await expect(printed.locator('script')).toHaveCount(0)
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')))
})

test('a unit like a formula or like markup stays words in every copy of a table', async ({
  page,
  bench,
}) => {
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await bench.open('f(x) = x^2 for -3 <= x <= 3')
  await bench.button('Study settings').click()
  const unit = '=1+1"<img src=x onerror=alert(1)>'
  await page.getByRole('textbox', { name: 'Variable unit' }).fill(unit)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await bench.say('table of f by 1')
  await bench.working.getByRole('button', { name: 'Copy', exact: true }).first().click()
  const copied = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read()
    const html = await (await item!.getType('text/html')).text()
    const read = new DOMParser().parseFromString(html, 'text/html')
    return {
      images: read.querySelectorAll('img, script').length,
      rows: read.querySelectorAll('tr').length,
      last: read.querySelector('tr:last-child td')?.textContent,
    }
  })
  expect(copied).toEqual({ images: 0, rows: 8, last: '3' })
  const download = page.waitForEvent('download')
  await bench.working.getByRole('button', { name: 'Save as CSV' }).first().click()
  const csv = readFileSync(await (await download).path(), 'utf8')
  // No cell begins as a formula does; a quoted one is looked at behind its quote.
  const cells = csv.split(/\r\n/).flatMap((row) => row.split(/,(?=(?:[^"]*"[^"]*")*[^"]*$)/))
  for (const cell of cells) expect(cell).not.toMatch(/^"?[=+@]/)
})

test('what is covered is covered on the picture as well', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 for -3 <= x <= 3')
  await bench.button('Show f′').click()
  await bench.button('Heights of f′').click()
  await page.getByRole('checkbox', { name: /Covered/ }).check()
  await page.keyboard.press('Escape')
  const { path } = await taken(page, 'Picture as PDF')
  const read = run('pdftotext', path, '-')
  expect(read).toContain('f′ is covered')
  const { path: svg } = await taken(page, 'Picture as SVG')
  // One curve is drawn in its colour, not two; its name is an outline without a stroke.
  const drawn = readFileSync(svg, 'utf8').match(/fill="none" stroke="#0f6b5c" stroke-width="3"/g)
  expect(drawn).toHaveLength(1)
})

test.describe('with a browser of its own', () => {
  test.use({ ownPage: true })

  test('a picture that cannot be made says why, and the study stays', async ({ page, bench }) => {
    await bench.open('f(x) = x^2 for -3 <= x <= 3')
    await page.route('**/*.woff', (route) => route.abort())
    await page.getByRole('button', { name: 'Hand on' }).click()
    await page.getByRole('menuitem', { name: 'Picture as PDF' }).click()
    const told = page.getByRole('alert').filter({ hasText: 'could not be made' })
    await expect(told).toContainText('The study is as it was')
    await page.getByRole('button', { name: 'Done' }).click()
    await page.unroute('**/*.woff')
    expect((await taken(page, 'Picture as PDF')).name).toMatch(/\.pdf$/)
  })
})

test('the picture and the working go out for LaTeX; words of people mean nothing in them', async ({
  page,
  bench,
}) => {
  await bench.open('f(x) = x^2 - 3 for -4 <= x <= 4')
  await bench.say('tangent at 1')
  await bench.say('where f = 0')
  await bench.say('note 50 % of \\input{x} 😀')
  const source = async (item: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Hand on' }).click()
    await page.getByRole('menuitem', { name: item }).click()
    const saved = await download
    // One character has no sign there: that is told, and the file is made all the same.
    const told = page.getByRole('dialog', { name: 'Made, with empty boxes' })
    await expect(told.getByRole('alert')).toContainText('😀')
    await told.getByRole('button', { name: 'Done' }).click()
    return { text: readFileSync(await saved.path(), 'utf8'), name: saved.suggestedFilename() }
  }
  const picture = await source('Picture for LaTeX')
  expect(picture.name).toMatch(/\.tex$/)
  expect(picture.text).toContain('\\begin{tikzpicture}')
  expect(picture.text).toContain('50 \\% of ')
  expect(picture.text).not.toMatch(/(?<!textbackslash\{\})input\{/)
  const working = await source('Working for LaTeX')
  expect(working.text).toContain('\\item Tangent to $f$ at $x = 1$')
  expect(working.text).toContain('\\ensuremath{\\surd}3')
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await bench.working.getByRole('button', { name: 'For LaTeX' }).click()
  const table = await page.evaluate(() => navigator.clipboard.readText())
  expect(table).toContain('\\begin{tabular}')
  expect(table.match(/\\\\$/gm)!.length).toBeGreaterThanOrEqual(3)
})

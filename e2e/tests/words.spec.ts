import type { Page } from '@playwright/test'
import { type Bench, expect, test } from '../support/fixtures'

/**
 * What covers what in the lanes, measured in the page: words against curves, dots, slope triangles and
 * other words. Curves are followed along their paths, words measured by their own type.
 */
const overlaps = (page: Page) =>
  page.evaluate(() => {
    const found: string[] = []
    const shrunk = (element: Element) => {
      const { left, right, top, bottom } = element.getBoundingClientRect()
      // A line of type is higher than its letters.
      const [across, up] = [1, (bottom - top) * 0.2]
      return { left: left + across, right: right - across, top: top + up, bottom: bottom - up }
    }
    const pointsOf = (path: SVGGeometryElement) => {
      const length = path.getTotalLength()
      const matrix = path.getScreenCTM()!
      return Array.from({ length: Math.ceil(length / 2) + 1 }, (_, i) =>
        path.getPointAtLength(Math.min(length, i * 2)).matrixTransform(matrix),
      )
    }
    for (const lane of document.querySelectorAll('figure[aria-label^="Lane "]')) {
      const all = [...lane.querySelectorAll('svg text, output[aria-label^="range of"]')]
      const words = all
        .filter((e) => e.textContent.trim() !== '' && e.getBoundingClientRect().width > 2)
        .map((e) => ({ text: e.textContent, box: shrunk(e) }))
      const drawn = [
        ...lane.querySelectorAll<SVGGeometryElement>(
          'path[data-item=curve], path[data-item^="over."], path[data-item$=".slope"], path[data-item^="break."]',
        ),
      ].filter((path) => path.getAttribute('d'))
      for (const path of drawn) {
        const points = pointsOf(path)
        for (const { text, box } of words) {
          const hit = points.some(
            ({ x, y }) => x > box.left && x < box.right && y > box.top && y < box.bottom,
          )
          if (hit)
            found.push(`${lane.getAttribute('aria-label')}: “${text}” on ${path.dataset.item}`)
        }
      }
      words.forEach(({ text, box }, i) => {
        for (const other of words.slice(i + 1)) {
          const apart =
            box.right <= other.box.left ||
            other.box.right <= box.left ||
            box.bottom <= other.box.top ||
            other.box.bottom <= box.top
          if (!apart) found.push(`${lane.getAttribute('aria-label')}: “${text}” on “${other.text}”`)
        }
      })
    }
    return found
  })

/** Every third of the examples, so that they are looked at side by side. */
for (const part of [0, 1, 2]) {
  test(`no words cover a curve, a dot, a triangle or one another in any example, ${part + 1} of 3`, async ({
    page,
    bench,
  }) => {
    test.setTimeout(150_000)
    await page.goto('/')
    const links = page.getByRole('list').getByRole('link')
    await expect(links.first()).toBeVisible()
    const all = await links.evaluateAll((found) =>
      found.map((link) => [link.textContent.trim(), link.getAttribute('href')!] as const),
    )
    const studies = all
      .filter(([, href]) => href.includes('/studies/'))
      .slice(0, 24)
      .filter((_, i) => i % 3 === part)
    expect(studies.length).toBeGreaterThan(3)
    const found: string[] = []
    for (const [title, href] of studies) {
      await page.locator(`a[href="${href}"]`).first().click()
      await expect(bench.working).toBeVisible()
      await page.waitForTimeout(700)
      found.push(...(await overlaps(page)).map((one) => `${title} · ${one}`))
      await page.goBack()
    }
    expect(found).toEqual([])
  })
}

const crowded: readonly (readonly [formula: string, ...said: string[]])[] = [
  ['x^3 - 3x', 'features of f', 'tangent to f at 1.5', 'tangent to f at -1.5'],
  ['sin x', 'turning points of f', 'zeros of f', 'tangent to f at 1'],
  ['x^4 - 5x^2 + 4', 'let g(x) = x^2 - 2', 'let k(x) = 3 sin(2x)', 'features of f'],
  ['e^x', 'let g(x) = x + 1', 'let k(x) = 1 + x + x^2/2', 'tangent to f at 0', 'value of f at 1'],
  ['floor x', 'value of f at 1', 'value of f at 2.5', 'area from 0 to 3'],
  ['1/x', 'tangent to f at 1', 'secant to f from 1 to 3', 'normal to f at 2'],
  ['6 + 4 sin(0.9x) - 0.3x for [0, 10]', 'features of f', 'area', 'secant 1 to 4', 'tangent at 3'],
  ['|x| + |x - 1|', 'features of f', 'average of f', 'tangent to f at 2'],
  ['cos(3x) + x/2', 'turning points of f', 'inflections of f', 'zeros of f'],
  ['x^2', 'let g(x) = 2 - x^2', 'area between f and g', 'tangent to f at 1', 'tangent to g at 1'],
]
const open = async (bench: Bench, [formula, ...said]: (typeof crowded)[number]) => {
  await bench.open(formula.startsWith('f') ? `f(x) = ${formula}` : formula)
  for (const words of said) await bench.say(words)
}
for (const part of [0, 1]) {
  test(`nor in studies that are crowded, with derivatives open, ${part + 1} of 2`, async ({
    page,
    bench,
  }) => {
    test.setTimeout(150_000)
    const found: string[] = []
    for (const study of crowded.filter((_, i) => i % 2 === part)) {
      await open(bench, study)
      await bench.button('Show f′').click()
      await page.waitForTimeout(900)
      found.push(...(await overlaps(page)).map((one) => `${study[0]} · ${one}`))
    }
    expect(found).toEqual([])
  })
}

import { expect, test } from '../support/fixtures'

test.use({ ownPage: true })

test.describe('list, page and server of different versions say so to each other', () => {
  test('a server that is newer than the page', async ({ page, bench }) => {
    await bench.open('q(t) = sin t for 0 ≤ t ≤ 10')
    const address = page.url()
    await page.route('**/api/studies/*', async (route) => {
      if (route.request().method() !== 'GET') return route.continue()
      const response = await route.fetch()
      const body = (await response.json()) as { study: object }
      await route.fulfill({
        response,
        headers: { ...response.headers(), 'x-yperkine-format': '3' },
        json: { ...body, study: { ...body.study, format: 3, steps: [] } },
      })
    })
    await page.goto('/')
    await page.goto(address)
    await expect(
      page.getByText(/the server is newer than this page: reload the page/),
    ).toBeVisible()
  })

  test('a server that is older than the page', async ({ page, bench }) => {
    await bench.open('q(t) = sin t for 0 ≤ t ≤ 10')
    await page.route('**/api/studies/*', async (route) => {
      if (route.request().method() !== 'PUT') return route.continue()
      const problems = [{ path: 'study.format', message: 'Invalid input: expected 1' }]
      await route.fulfill({
        status: 400,
        headers: { 'x-yperkine-format': '1' },
        json: { error: { code: 'bad-study', message: 'no', details: { problems } } },
      })
    })
    await bench.say('tangent')
    await expect(page.getByText(/the server is older than this page/).first()).toBeVisible()
  })

  test('a study in the list that was made with a newer version', async ({ page }) => {
    // The list comes in parts, and other studies are made meanwhile.
    let newer: string | undefined
    await page.route('**/api/studies?*', async (route) => {
      const response = await route.fetch()
      const body = (await response.json()) as { studies: { id: string; format: number }[] }
      newer ??= body.studies[0]!.id
      for (const study of body.studies) if (study.id === newer) study.format = 3
      await route.fulfill({ response, json: body })
    })
    await page.goto('/')
    await expect(page.getByText('Made with a newer version')).toHaveCount(1)
  })
})

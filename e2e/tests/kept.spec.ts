import { rmSync } from 'node:fs'
import { startDatabase, temporaryFolder } from '../../scripts/database.mjs'
import { Bench, expect, test } from '../support/fixtures'
import { startServer } from '../support/server'

test.use({ ownPage: true })

test('of two tabs the second is told, and keeps its work as a copy', async ({
  page,
  bench,
  context,
}) => {
  await bench.open('f(x) = x^2 - 5')
  await bench.saved()
  const other = new Bench(await context.newPage())
  await other.page.goto(page.url())
  await other.say('tangent')
  await other.saved()
  await bench.say('value at 2')
  await expect(page.getByRole('alert')).toContainText('changed elsewhere')
  await expect(page.getByRole('status').filter({ hasText: 'Not saved' })).toBeVisible()
  const address = page.url()
  await bench.button('Keep mine as a copy').click()
  await expect(page).not.toHaveURL(address)
  await expect(bench.line('Value of f at x = 2')).toBeVisible()
  await expect(page.getByRole('heading', { name: /\(mine\)/ })).toBeVisible()
  await page.goto(address)
  await expect(bench.line('Tangent to f at x = a')).toBeVisible()
  await expect(bench.line('Value of f at x = 2')).toBeHidden()
})

test('or takes theirs', async ({ page, bench, context }) => {
  await bench.open('f(x) = x^2 - 6')
  await bench.saved()
  const other = new Bench(await context.newPage())
  await other.page.goto(page.url())
  await other.say('tangent')
  await other.saved()
  await bench.say('value at 2')
  await bench.button('Take theirs').click()
  await expect(bench.line('Tangent to f at x = a')).toBeVisible()
  await expect(bench.line('Value of f at x = 2')).toBeHidden()
  await bench.say('value at 3')
  await bench.saved()
})

test('a stopped server loses nothing, also over a reload', async ({ page, bench, ownServer }) => {
  await bench.open('f(x) = x^2 - 7', ownServer.url)
  await bench.saved()
  await ownServer.stop('SIGKILL')
  await bench.say('tangent')
  await expect(page.getByRole('status').filter({ hasText: 'Not saved' })).toBeVisible()
  await expect(page.getByText('the server cannot be reached')).toBeVisible()
  await bench.say('value at 2')
  await ownServer.start()
  await bench.saved()
  await ownServer.stop('SIGKILL')
  await bench.say('value at 3')
  await expect(page.getByRole('status').filter({ hasText: 'Not saved' })).toBeVisible()
  // Away from the page while the server is down, and back when it is up again.
  const address = page.url()
  await page.goto('about:blank')
  await ownServer.start()
  await page.goto(address)
  await expect(bench.line('Value of f at x = 3')).toBeVisible()
  await bench.saved()
  await page.reload()
  await expect(bench.line('Value of f at x = 3')).toBeVisible()
})

test('a database restarted under the server is found again', async ({ page, bench }) => {
  const folder = temporaryFolder()
  const flags = ['-c', 'fsync=off']
  let database = await startDatabase(folder, { flags })
  const server = await startServer(database.url)
  try {
    await bench.open('f(x) = x^2 - 9', server.url)
    await bench.say('value at 1')
    await bench.saved()
    await database.stop()
    await bench.say('value at 2')
    await expect(page.getByRole('status').filter({ hasText: 'Not saved' })).toBeVisible()
    database = await startDatabase(folder, { flags, port: database.port })
    await bench.saved()
    await page.reload()
    await expect(bench.line('Value of f at x = 2')).toBeVisible()
  } finally {
    await server.stop()
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
})

test('a database that is killed comes back by itself, and the save with it', async ({
  page,
  bench,
}) => {
  const folder = temporaryFolder()
  const database = await startDatabase(folder, { flags: ['-c', 'fsync=off'] })
  const server = await startServer(database.url)
  try {
    await bench.open('f(x) = x^2 - 10', server.url)
    await bench.saved()
    process.kill(database.pid(), 'SIGKILL')
    await bench.say('value at 6')
    await bench.saved()
    await page.reload()
    await expect(bench.line('Value of f at x = 6')).toBeVisible()
  } finally {
    await server.stop()
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
})

test('what is typed last is saved when the page is left at once', async ({ page, bench }) => {
  await bench.open('f(x) = x^2 - 8')
  await bench.say('value at 4')
  const address = page.url()
  await page.goto('/')
  await page.goto(address)
  await expect(bench.line('Value of f at x = 4')).toBeVisible()
})

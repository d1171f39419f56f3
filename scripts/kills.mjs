import { randomUUID } from 'node:crypto'
import { rmSync } from 'node:fs'
import { startDatabase, temporaryFolder } from './database.mjs'
import { startServer } from './serverProcess.mjs'

const rounds = 50

/** The smallest study there is. */
export const smallStudy = (title) => ({
  format: 2,
  title,
  about: '',
  variable: { letter: 'x', name: '', unit: '' },
  decimals: 3,
  sliders: [],
  lines: [],
  lanes: [],
  frame: null,
})

async function ask(url, method, body) {
  const answer = await fetch(url, {
    method,
    headers: { 'content-type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  })
  return { status: answer.status, body: await answer.json() }
}

/** Starts a database and a server, and puts both away afterwards, whatever happens. */
async function withServer(work) {
  const folder = temporaryFolder()
  const db = await startDatabase(folder)
  const running = { server: await startServer(db.url) }
  /** The server ends without warning and comes back on its port. */
  running.restart = async () => {
    const port = Number(new URL(running.server.address).port)
    running.server = await startServer(db.url, port)
  }
  try {
    return await work(running)
  } finally {
    await running.server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/**
 * Kills the server without warning in the middle of saving, again and again, and counts the saves
 * that had been answered and are not there afterwards.
 */
export async function measureLostSaves() {
  let answered = 0
  let lost = 0
  await withServer(async (running) => {
    const { address } = running.server
    const { body } = await ask(`${address}/api/studies`, 'POST', { study: smallStudy('0') })
    const { id } = body
    let last = { version: 1, title: '0' }
    for (let round = 0; round < rounds; round++) {
      const killed = new Promise((resolve) => {
        const victim = running.server
        setTimeout(() => resolve(victim.stop('SIGKILL')), 20 + ((round * 37) % 60))
      })
      for (let i = 0; ; i++) {
        const title = `${round}.${i}`
        const save = { version: last.version, study: smallStudy(title), saveId: randomUUID() }
        // Without an answer the server is gone; what it had answered before must be there later.
        const saved = await ask(`${address}/api/studies/${id}`, 'PUT', save).catch(() => null)
        if (!saved) break
        if (saved.status !== 200) throw new Error(`a save was answered with ${saved.status}`)
        answered += 1
        last = { version: saved.body.version, title }
      }
      await killed
      await running.restart()
      const found = await ask(`${address}/api/studies/${id}`, 'GET')
      // The last save may have been kept without an answer; an older state is a loss.
      if (found.body.version < last.version) lost += 1
      if (found.body.version === last.version && found.body.study.title !== last.title) lost += 1
      last = { version: found.body.version, title: found.body.study.title }
    }
  })
  return { tried: rounds, refused: 0, lost, slowest: 0, note: ` (${answered} saves answered)` }
}

/**
 * The same with a person's page: it edits while the server is killed and comes back. A loss is an
 * edit that the page called saved and the server does not have, or one the page itself has lost.
 */
export async function measureLostEdits() {
  const { chromium } = await import('@playwright/test')
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
  })
  let edits = 0
  let lost = 0
  let conflicts = 0
  await withServer(async (running) => {
    const { address } = running.server
    const slider = { name: 'a', value: 0, from: 0, to: 1000, step: 1, place: true }
    const { body } = await ask(`${address}/api/studies`, 'POST', {
      study: { ...smallStudy('Edited'), sliders: [slider] },
    })
    const page = await browser.newPage()
    await page.goto(`${address}/studies/${body.id}`)
    const flag = page.getByRole('slider', { name: 'a', exact: true })
    await flag.focus()
    const kept = async () => {
      const found = await ask(`${address}/api/studies/${body.id}`, 'GET')
      return found.body.study.sliders[0].value
    }
    const isSaved = () => page.getByText('Saved', { exact: true }).isVisible()
    for (let round = 0; round < rounds; round++) {
      await page.keyboard.press('ArrowRight')
      edits += 1
      // Saves begin a moment after an edit: the kills fall before, during and after them.
      await page.waitForTimeout((round * 61) % 1200)
      const saved = await isSaved()
      await running.server.stop('SIGKILL')
      await page.keyboard.press('ArrowRight')
      edits += 1
      await running.restart()
      if (saved && (await kept()) < edits - 1) lost += 1
      if (await page.getByRole('button', { name: 'Take theirs' }).isVisible()) conflicts += 1
    }
    await page.getByText('Saved', { exact: true }).waitFor({ timeout: 180_000 })
    if ((await kept()) !== edits) lost += edits - (await kept())
  }).finally(() => browser.close())
  const note = ` (${edits} edits, ${conflicts} false conflicts)`
  return { tried: rounds, refused: 0, lost: lost + conflicts, slowest: 0, note }
}

import { randomUUID } from 'node:crypto'
import { rmSync } from 'node:fs'
import { startDatabase, temporaryFolder } from './database.mjs'
import { startServer } from './serverProcess.mjs'

const rounds = 50

const study = (title) => ({
  format: 1,
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

/**
 * Kills the server without warning in the middle of saving, again and again, and counts the saves
 * that had been answered and are not there afterwards.
 */
export async function measureLostSaves() {
  const folder = temporaryFolder()
  const db = await startDatabase(folder)
  let server = await startServer(db.url)
  let answered = 0
  let lost = 0
  try {
    const { body } = await ask(`${server.address}/api/studies`, 'POST', { study: study('0') })
    const { id } = body
    let last = { version: 1, title: '0' }
    for (let round = 0; round < rounds; round++) {
      const killed = new Promise((resolve) => {
        const victim = server
        setTimeout(() => resolve(victim.stop('SIGKILL')), 20 + ((round * 37) % 60))
      })
      for (let i = 0; ; i++) {
        const title = `${round}.${i}`
        const save = { version: last.version, study: study(title), saveId: randomUUID() }
        // Without an answer the server is gone; what it had answered before must be there later.
        const saved = await ask(`${server.address}/api/studies/${id}`, 'PUT', save).catch(
          () => null,
        )
        if (!saved) break
        if (saved.status !== 200) throw new Error(`a save was answered with ${saved.status}`)
        answered += 1
        last = { version: saved.body.version, title }
      }
      await killed
      server = await startServer(db.url)
      const found = await ask(`${server.address}/api/studies/${id}`, 'GET')
      // The last save may have been kept without an answer; an older state is a loss.
      if (found.body.version < last.version) lost += 1
      if (found.body.version === last.version && found.body.study.title !== last.title) lost += 1
      last = { version: found.body.version, title: found.body.study.title }
    }
  } finally {
    await server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
  console.log(
    `\nServer killed ${rounds} times while saving: ${answered} saves answered, ${lost} lost`,
  )
}

import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { existsSync, rmSync } from 'node:fs'
import http from 'node:http'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import { startDatabase, temporaryFolder } from './database.mjs'
import {
  buildAll,
  bundleCore,
  checkNode,
  installDebianPackage,
  installPackages,
} from './install.mjs'
import { measureLostEdits, measureLostSaves, smallStudy } from './kills.mjs'
import { run, wait } from './run.mjs'
import { Explained, runMain, say } from './say.mjs'
import { startServer } from './serverProcess.mjs'

/**
 * Puts the core and the server under fire: random formulas, studies and texts by seeds, malformed
 * requests, writers at once, kills of server and database, a full disk. About ten minutes; a seed
 * may be given to go on elsewhere: npm run storm -- 5000.
 */
const seconds = {
  'formulas examined on five spans': 120,
  'decimal breaks, features and strips': 40,
  'areas and rates of products': 60,
  'printed and read again': 20,
  'studies with any numbers, drawn': 60,
  'texts of any characters, read': 20,
}
/** A single case that takes longer than this is a fault by itself. */
const patience = 20_000

/** Runs one fuzzer in a thread; a case that hangs is told with its seed, and the rest goes on. */
async function fuzz(file, name, firstSeed) {
  const total = { tried: 0, faults: [], slowest: { milliseconds: 0, seed: 0 } }
  const until = Date.now() + seconds[name] * 1000
  let seed = firstSeed
  while (Date.now() < until) {
    const worker = new Worker(file, {
      workerData: { name, seed, milliseconds: until - Date.now() },
    })
    let at = seed
    let since = Date.now()
    let done = null
    worker.on('message', (message) => {
      if (message.done) done = message.done
      else [at, since] = [message.at, Date.now()]
    })
    worker.on('error', (error) => total.faults.push({ seed: at, words: String(error) }))
    const ended = once(worker, 'exit')
    while (!done && (await Promise.race([ended, wait(500)])) === undefined) {
      if (Date.now() - since < patience) continue
      total.faults.push({ seed: at, words: `no end in ${patience / 1000} s` })
      await worker.terminate()
    }
    await worker.terminate()
    if (!done) {
      total.tried += at - seed + 1
      seed = at + 1
      continue
    }
    total.tried += done.tried
    total.faults.push(...done.faults)
    if (done.slowest.milliseconds > total.slowest.milliseconds) total.slowest = done.slowest
    break
  }
  return total
}

const agent = new http.Agent({ keepAlive: true, maxSockets: 32 })
/**
 * One request, of any shape; resolves with its status and body, or null without an answer. A kept
 * connection may be closed just as it is used again: then the request is sent once more on a new one.
 */
const send = async (address, request) =>
  (await sendOn(agent, address, request)) ?? sendOn(false, address, request)

function sendOn(agent, address, { method = 'GET', route, headers = {}, body }) {
  return new Promise((resolve) => {
    const began = performance.now()
    const request = http.request(`${address}${route}`, { method, agent, headers }, (response) => {
      const parts = []
      response.on('data', (part) => parts.push(part))
      response.on('end', () =>
        resolve({
          status: response.statusCode,
          text: Buffer.concat(parts).toString(),
          milliseconds: performance.now() - began,
        }),
      )
      response.on('error', () => resolve(null))
    })
    request.on('error', () => resolve(null))
    request.end(body)
  })
}
const json = { 'content-type': 'application/json' }
const post = (address, study) =>
  send(address, {
    method: 'POST',
    route: '/api/studies',
    headers: json,
    body: JSON.stringify({ study }),
  })
const put = (address, id, version, title) =>
  send(address, {
    method: 'PUT',
    route: `/api/studies/${id}`,
    headers: json,
    body: JSON.stringify({ version, study: smallStudy(title), saveId: randomUUID() }),
  })
const get = async (address, id) =>
  JSON.parse((await send(address, { route: `/api/studies/${id}` })).text)

async function withServer(work, flags = []) {
  const folder = temporaryFolder()
  const db = await startDatabase(folder, { flags })
  const server = await startServer(db.url)
  try {
    return await work({ db, server, address: server.address })
  } finally {
    await server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Repeatable choices. */
function chanceFrom(seed) {
  let state = seed >>> 0
  const below = (n) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 4294967296) * n)
  }
  return { below, pick: (all) => all[below(all.length)] }
}

/** Requests that no page sends: none may be answered by 5xx, and the server must live. */
async function malformed(seed) {
  const count = 10_000
  const result = { tried: count, refused: 0, lost: 0, slowest: 0, words: [] }
  await withServer(async ({ server, address }) => {
    const { id } = JSON.parse((await post(address, smallStudy('Under fire'))).text)
    const { below, pick } = chanceFrom(seed)
    const texts = ['', '{', '[]', 'null', '{"study":{}}', '{"study":{"format":1}}', '\u0000', '"x"']
    const odd = [2 ** 31, -1, 1e308, null, 'x', [], {}, true, '\ud800']
    const oneOf = () => ({
      method: pick(['GET', 'POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS', 'HEAD']),
      route: pick([
        '/api/studies',
        `/api/studies/${id}`,
        '/api/studies/%E0%A4%A',
        `/api/studies/${randomUUID()}`,
        "/api/studies/';drop table studies;--",
        `/api/studies/${id}/restore`,
        '/api/studies?cursor=x&limit=-1',
        `/api/studies?search=${'x'.repeat(below(400))}`,
        '/api/../../etc/passwd',
        '/assets/%2e%2e/%2e%2e/package.json',
      ]),
      headers: {
        ...pick([{}, json, { 'content-type': 'text/plain' }, { 'content-type': '\u00ff' }]),
        ...pick([{}, {}, { 'content-encoding': pick(['gzip', 'br', 'deflate', 'zip']) }]),
        ...pick([{}, {}, { origin: 'http://evil.example' }, { host: 'evil.example' }]),
        ...pick([{}, {}, { range: 'bytes=9-1' }, { 'if-match': '"x"' }]),
      },
      body: pick([
        pick(texts),
        JSON.stringify({ version: pick(odd), study: smallStudy('x'), saveId: pick(odd) }),
        JSON.stringify({
          study: { ...smallStudy('x'), [pick(['lines', 'lanes', 'frame'])]: pick(odd) },
        }),
        Buffer.from(Array.from({ length: below(64) }, () => below(256))),
      ]),
    })
    for (let i = 0; i < count; i += 20) {
      const batch = await Promise.all(
        Array.from({ length: 20 }, () => {
          const request = oneOf()
          // A body where none belongs is not what this is about.
          if (request.method === 'GET' || request.method === 'HEAD') delete request.body
          return send(address, request).then((answer) => ({ request, answer }))
        }),
      )
      for (const { request, answer } of batch) {
        if (answer && answer.status >= 400 && answer.status < 500) result.refused += 1
        if (!answer || answer.status >= 500) {
          result.lost += 1
          result.words.push(
            `${answer?.status ?? 'no answer'}: ${JSON.stringify(request).slice(0, 160)}`,
          )
        }
        if (answer) result.slowest = Math.max(result.slowest, answer.milliseconds)
      }
    }
    const alive = await send(address, { route: '/api/ready' })
    if (server.hasEnded() || alive?.status !== 200) result.words.push('the server does not live')
  })
  return result
}

/** Eight writers on one study: an answered save is one version, and nobody overwrites another. */
async function writers() {
  const result = { tried: 0, refused: 0, lost: 0, slowest: 0, words: [] }
  await withServer(async ({ address }) => {
    const { id } = JSON.parse((await post(address, smallStudy('Eight hands'))).text)
    let accepted = 0
    const until = Date.now() + 15_000
    await Promise.all(
      Array.from({ length: 8 }, async (_, who) => {
        let { version } = await get(address, id)
        for (let i = 0; Date.now() < until; i++) {
          const answer = await put(address, id, version, `${who}.${i}`)
          result.tried += 1
          result.slowest = Math.max(result.slowest, answer?.milliseconds ?? 0)
          if (answer?.status === 200) {
            accepted += 1
            version = JSON.parse(answer.text).version
          } else {
            result.refused += 1
            version = JSON.parse(answer.text).error.details.current.version
          }
        }
      }),
    )
    result.lost = accepted - ((await get(address, id)).version - 1)
  })
  return result
}

/** Kills the database under saving; the server must live, and no answered save may be lost. */
async function databaseKills() {
  const rounds = 20
  const result = { tried: rounds, refused: 0, lost: 0, slowest: 0, words: [] }
  await withServer(async ({ db, server, address }) => {
    const { id } = JSON.parse((await post(address, smallStudy('0'))).text)
    let last = { version: 1, title: '0' }
    for (let round = 0; round < rounds; round++) {
      const before = db.pid()
      setTimeout(() => process.kill(before, 'SIGKILL'), 30 + ((round * 53) % 120))
      let killed = false
      for (let i = 0; !killed || i < 5; i++) {
        const title = `${round}.${i}`
        const answer = await put(address, id, last.version, title)
        if (answer?.status === 200) last = { version: JSON.parse(answer.text).version, title }
        else {
          result.refused += 1
          killed = true
          if (answer?.status === 409) {
            // Kept, and the answer lost: it may be newer, never older.
            const { current } = JSON.parse(answer.text).error.details
            if (current.version < last.version) result.lost += 1
            last = { version: current.version, title: current.study.title }
          }
          await wait(150)
        }
        if (server.hasEnded()) break
      }
      const began = performance.now()
      while ((await send(address, { route: '/api/ready' }))?.status !== 200) {
        if (server.hasEnded() || performance.now() - began > 40_000) break
        await wait(200)
      }
      result.slowest = Math.max(result.slowest, performance.now() - began)
      const found = await get(address, id)
      if (found.version < last.version) result.lost += 1
      last = { version: found.version, title: found.study.title }
    }
    if (server.hasEnded()) result.words.push('the server has ended')
  })
  return result
}

/** A disk that fills up under saving, where a small one can be made; it is told, and taken up again. */
async function fullDisk() {
  const result = { tried: 0, refused: 0, lost: 0, slowest: 0, words: [] }
  const folder = temporaryFolder()
  const mounted = await run('mount', ['-t', 'tmpfs', '-o', 'size=90m', 'tmpfs', folder], {
    quiet: true,
  })
  if (mounted.code !== 0) return { ...result, words: ['not tried: no small disk can be made here'] }
  try {
    const db = await startDatabase(folder, {
      flags: ['-c', 'min_wal_size=32MB', '-c', 'max_wal_size=32MB'],
    })
    const server = await startServer(db.url)
    const { id } = JSON.parse((await post(server.address, smallStudy('0'))).text)
    let last = { version: 1, title: '0' }
    const full = path.join(folder, 'data', 'base', 'ballast')
    await run('sh', ['-c', `dd if=/dev/zero of=${full} bs=1M 2>/dev/null`], { quiet: true })
    for (let i = 0; i < 60; i++) {
      const body = JSON.stringify({
        version: last.version,
        study: { ...smallStudy(`full ${i}`), about: 'x'.repeat(250) },
        saveId: randomUUID(),
      })
      const answer = await send(server.address, {
        method: 'PUT',
        route: `/api/studies/${id}`,
        headers: json,
        body,
      })
      result.tried += 1
      if (answer?.status === 200)
        last = { version: JSON.parse(answer.text).version, title: `full ${i}` }
      else result.refused += 1
      result.slowest = Math.max(result.slowest, answer?.milliseconds ?? 0)
      await wait(20)
    }
    rmSync(full, { force: true })
    for (let i = 0; i < 200; i++) {
      if ((await send(server.address, { route: '/api/ready' }))?.status === 200) break
      await wait(200)
    }
    const found = await get(server.address, id)
    if (found.version < last.version) result.lost += 1
    const after = await put(server.address, id, found.version, 'room again')
    if (after?.status !== 200) result.words.push(`not taken up again: ${after?.status}`)
    await server.stop()
    await db.stop()
  } finally {
    await run('umount', ['-l', folder], { quiet: true })
    rmSync(folder, { recursive: true, force: true })
  }
  return result
}

runMain(async () => {
  checkNode()
  await installPackages()
  await buildAll()
  if (!existsSync('/usr/bin/chromium')) await installDebianPackage('chromium', 'Chromium')
  const seed = Number(process.argv[2] ?? 1)
  if (!Number.isInteger(seed) || seed < 0) throw new Explained('A seed is a whole number.')
  const file = pathToFileURL(await bundleCore('fuzz/main.ts', 'storm'))
  const rows = []
  const words = []
  const add = (name, { tried, refused = 0, lost, slowest, note = '' }) => {
    rows.push([name, tried, refused, lost, `${Math.round(slowest)} ms${note}`])
    say(
      `${name}: ${tried} tried, ${refused} refused, ${lost} lost, slowest ${Math.round(slowest)} ms${note}`,
    )
  }
  for (const name of Object.keys(seconds)) {
    const { tried, faults, slowest } = await fuzz(file, name, seed)
    add(name, {
      tried,
      lost: faults.length,
      slowest: slowest.milliseconds,
      note: ` (seed ${slowest.seed})`,
    })
    words.push(
      ...faults.slice(0, 5).map((f) => `${name}, seed ${f.seed}: ${f.words.slice(0, 200)}`),
    )
  }
  for (const [name, work] of [
    ['malformed requests', () => malformed(seed)],
    ['eight writers on one study', writers],
    ['kills of the database', databaseKills],
    ['a full disk', fullDisk],
    ['kills of the server under saving', measureLostSaves],
    ['kills of the server under a page', measureLostEdits],
  ]) {
    const result = await work()
    add(name, result)
    words.push(...(result.words ?? []).slice(0, 5).map((w) => `${name}: ${w}`))
  }
  agent.destroy()
  say(
    `\n${'what'.padEnd(38)}${'tried'.padStart(9)}${'refused'.padStart(9)}${'lost'.padStart(7)}  slowest`,
  )
  for (const [name, tried, refused, lost, slowest] of rows) {
    say(
      `${name.padEnd(38)}${String(tried).padStart(9)}${String(refused).padStart(9)}${String(lost).padStart(7)}  ${slowest}`,
    )
  }
  for (const line of words) say(line)
  if (rows.some(([, , , lost]) => lost > 0)) process.exitCode = 1
})

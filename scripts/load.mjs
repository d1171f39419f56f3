import { randomUUID } from 'node:crypto'
import { rmSync, writeFileSync } from 'node:fs'
import http from 'node:http'
import path from 'node:path'
import { startDatabase, temporaryFolder } from './database.mjs'
import { root } from './install.mjs'
import { startProcess, startServer } from './serverProcess.mjs'

const connections = 16
/** Each kind of request is sent for so long, to both servers in turns, in milliseconds. */
const turn = 1200
const turns = 9
const listed = 100
const kilobytes = 20

/** A study of about 20 KB: a curve and what a class has added to it. */
function studyOf(title) {
  const curve = {
    kind: 'curve',
    id: 'line1',
    name: 'q',
    unit: 'ML/h',
    formula: '6 + 4 sin(0.9t) - 0.3t',
    span: { from: '0', to: '10' },
  }
  const tangents = Array.from({ length: 1 }, (_, i) => ({
    kind: 'tangent',
    id: `line${i + 2}`,
    curve: 'q',
    order: 0,
    place: String(i),
    extent: 'whole',
  }))
  const study = {
    format: 2,
    title,
    about: 'Inflow through the channel of the Ostrel lagoon',
    variable: { letter: 't', name: 'time', unit: 'h' },
    decimals: 3,
    sliders: [],
    lines: [curve, ...tangents],
    lanes: [{ kind: 'lane', id: 'lane1', curve: 'q', order: 0, frame: null }],
    frame: null,
  }
  while (JSON.stringify(study).length < kilobytes * 1000) {
    const i = study.lines.length + 1
    study.lines.push({ ...tangents[0], id: `line${i}`, place: String((i * 7) % 10) })
  }
  return study
}

/** One request on a kept connection; resolves with the bytes of the answer. */
function ask(agent, address, { method, route, body }) {
  return new Promise((resolve, reject) => {
    const request = http.request(
      `${address}${route}`,
      { method, agent, headers: body ? { 'content-type': 'application/json' } : {} },
      (response) => {
        const parts = []
        response.on('data', (part) => parts.push(part))
        response.on('end', () => {
          const text = Buffer.concat(parts).toString()
          if (response.statusCode >= 300) reject(new Error(`${response.statusCode}: ${text}`))
          else resolve(text)
        })
      },
    )
    request.on('error', reject)
    request.end(body)
  })
}

/** Requests a second on 16 connections, each of which asks again as soon as it has an answer. */
async function rateOf(address, requestFor) {
  const agent = new http.Agent({ keepAlive: true, maxSockets: connections })
  const until = performance.now() + turn
  let count = 0
  const began = performance.now()
  await Promise.all(
    Array.from({ length: connections }, async (_, lane) => {
      while (performance.now() < until) {
        await requestFor(lane, (request) => ask(agent, address, request))
        count += 1
      }
    }),
  )
  agent.destroy()
  return count / ((performance.now() - began) / 1000)
}

const median = (all) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]

/** The server beside a bare one, for the three requests that a school makes all day. */
export async function measureLoad() {
  const folder = temporaryFolder()
  const db = await startDatabase(folder)
  const server = await startServer(db.url)
  const agent = new http.Agent({ keepAlive: true })
  const own = (request) => ask(agent, server.address, request)
  const ids = []
  for (let i = 0; i < listed; i++) {
    const body = JSON.stringify({ study: studyOf(`Loaded ${i}`) })
    ids.push(JSON.parse(await own({ method: 'POST', route: '/api/studies', body })).id)
  }
  // Pictures are drawn apart; the list is asked for when it has them.
  for (let i = 0; i < 100; i++) {
    const { studies } = JSON.parse(await own({ method: 'GET', route: '/api/studies' }))
    if (studies.every((s) => s.drawing !== true)) break
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
  const list = await own({ method: 'GET', route: '/api/studies' })
  const study = await own({ method: 'GET', route: `/api/studies/${ids[0]}` })
  const kept = JSON.stringify(JSON.parse(study).study)
  // Each connection saves a study of its own, as each person does.
  const versions = ids.map(() => 1)
  const saveBy = async (lane, send) => {
    const version = versions[lane]
    const body = JSON.stringify({ version, study: JSON.parse(kept), saveId: randomUUID() })
    const answer = JSON.parse(
      await send({ method: 'PUT', route: `/api/studies/${ids[lane]}`, body }),
    )
    versions[lane] = answer.version
    return answer
  }
  const saved = JSON.stringify(await saveBy(0, own))
  const answers = path.join(folder, 'answers.json')
  writeFileSync(answers, JSON.stringify({ list, study, kept, saved }))
  const bare = await startProcess(path.join(root, 'scripts/bareServer.mjs'), {
    DATABASE_URL: db.url,
    ANSWERS: answers,
  })
  const saveBare = (lane, send) => {
    const body = JSON.stringify({ version: 1, study: JSON.parse(kept), saveId: randomUUID() })
    return send({ method: 'PUT', route: `/api/studies/${ids[lane + connections]}`, body })
  }
  const get = (route) => (_lane, send) => send({ method: 'GET', route })
  const kinds = [
    [
      `list of ${listed} (${Math.round(list.length / 1000)} KB)`,
      get('/api/studies'),
      get('/api/studies'),
    ],
    [
      `one study (${Math.round(study.length / 1000)} KB)`,
      get(`/api/studies/${ids[40]}`),
      get(`/api/studies/${ids[40]}`),
    ],
    [`save (${Math.round(kept.length / 1000)} KB)`, saveBy, saveBare],
  ]
  console.log(
    `\nRequests a second on ${connections} connections, beside a bare route (medians of ${turns})`,
  )
  try {
    for (const [name, ours, theirs] of kinds) {
      const rates = { ours: [], theirs: [] }
      for (let i = 0; i < turns; i++) {
        rates.theirs.push(await rateOf(bare.address, theirs))
        rates.ours.push(await rateOf(server.address, ours))
      }
      const [a, b] = [median(rates.ours), median(rates.theirs)]
      // Each turn beside its neighbour: a busy machine slows both.
      const share = median(rates.ours.map((rate, i) => rate / rates.theirs[i]))
      console.log(
        `  ${name.padEnd(26)} ${a.toFixed(0).padStart(6)}  bare ${b.toFixed(0).padStart(6)}  ${share.toFixed(2)} ×`,
      )
    }
  } finally {
    agent.destroy()
    await bare.stop()
    await server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

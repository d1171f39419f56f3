import { randomUUID } from 'node:crypto'
import { blankStudy, type Study } from '@yperkine/core'
import pg from 'pg'
import { pino } from 'pino'
import type { Sequelize } from 'sequelize'
import request from 'supertest'
import { createApp } from './app'
import { connect, StudyRow } from './database'
import { migrate } from './migrations'
import { readSettings } from './settings'
import { createStudies } from './studies'

const databaseUrl = process.env.DATABASE_URL ?? ''
const log = pino({ level: 'silent' })

let database: Sequelize
const partsFor = (overrides = {}) => ({
  studies: createStudies(),
  pingDatabase: () => database.authenticate(),
  log,
  requestsPerMinute: 10_000,
  ...overrides,
})
let app: ReturnType<typeof createApp>

const study = (title = 'Spring tide'): Study => ({ ...blankStudy(), title })
const post = (body: object) => request(app).post('/api/studies').send(body)
const put = (id: string, body: object) => request(app).put(`/api/studies/${id}`).send(body)
const create = async (title?: string) =>
  (await post({ study: study(title) }).expect(201)).body as { id: string; version: number }

beforeAll(async () => {
  if (databaseUrl === '') throw new Error('these tests want DATABASE_URL; run npm test')
  database = connect(databaseUrl)
  await migrate(database, { demo: true })
  app = createApp(partsFor())
})
afterAll(() => database.close())

describe('the first start', () => {
  test('brings demo studies, newest first, each with a drawing', async () => {
    const { body } = await request(app).get('/api/studies').expect(200)
    const { studies } = body as {
      studies: { title: string; updatedAt: string; topics: string[]; thumbnail: { path: string } }[]
    }
    expect(studies.length).toBeGreaterThanOrEqual(4)
    expect(studies[0]).toMatchObject({ title: 'The flood tide', topics: ['rates'] })
    for (const { thumbnail } of studies) expect(thumbnail.path).toMatch(/^M[\d.-]+ [\d.-]+L/)
    const ages = studies.map((s) => s.updatedAt)
    expect([...ages].sort().reverse()).toEqual(ages)
  })

  test('migrating again changes nothing', async () => {
    const before = await StudyRow.count()
    await migrate(database, { demo: true })
    expect(await StudyRow.count()).toBe(before)
  })
})

describe('keeping a study', () => {
  test('what is sent is what comes back', async () => {
    const sent = study('Ünïcode ∫ title')
    const { body } = await post({ study: sent }).expect(201)
    expect(body).toMatchObject({ version: 1, study: sent })
    const again = await request(app)
      .get(`/api/studies/${(body as { id: string }).id}`)
      .expect(200)
    expect(again.body).toEqual(body)
  })

  test('a study kept before the schema grew is read with what is usual', async () => {
    const { display: _, ...older } = study('From long ago')
    const row = await StudyRow.create({ study: older as Study, saveId: null })
    const { body } = await request(app).get(`/api/studies/${row.id}`).expect(200)
    expect(body).toMatchObject({ study: { title: 'From long ago', display: { look: 'paper' } } })
    await request(app).get('/api/studies').expect(200)
  })

  test('each save is a new version', async () => {
    const { id } = await create()
    const saved = await put(id, {
      version: 1,
      study: study('Neap tide'),
      saveId: randomUUID(),
    }).expect(200)
    expect(saved.body).toMatchObject({ id, version: 2, study: { title: 'Neap tide' } })
  })

  test('a save repeated after a lost answer is recognised', async () => {
    const { id } = await create()
    const body = { version: 1, study: study('Neap tide'), saveId: randomUUID() }
    await put(id, body).expect(200)
    const again = await put(id, body).expect(200)
    expect(again.body).toMatchObject({ version: 2 })
  })

  test('a save from an outdated version is refused with the present state', async () => {
    const { id } = await create()
    await put(id, { version: 1, study: study('Mine'), saveId: randomUUID() }).expect(200)
    const refused = await put(id, {
      version: 1,
      study: study('Theirs'),
      saveId: randomUUID(),
    }).expect(409)
    expect(refused.body).toMatchObject({
      error: {
        code: 'study-changed',
        details: { current: { version: 2, study: { title: 'Mine' } } },
      },
    })
  })

  test('of two saves at once exactly one wins', async () => {
    const { id } = await create()
    const answers = await Promise.all(
      ['A', 'B', 'C', 'D'].map((title) =>
        put(id, { version: 1, study: study(title), saveId: randomUUID() }),
      ),
    )
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409, 409, 409])
  })

  test('deleted is gone from sight and can be brought back, as old as it was', async () => {
    const { id } = await create('Short-lived')
    const before = await request(app).get(`/api/studies/${id}`)
    await request(app).delete(`/api/studies/${id}`).expect(204)
    await request(app).get(`/api/studies/${id}`).expect(404)
    await put(id, { version: 1, study: study(), saveId: randomUUID() }).expect(404)
    await request(app).delete(`/api/studies/${id}`).expect(404)
    const restored = await request(app).post(`/api/studies/${id}/restore`).expect(200)
    expect(restored.body).toEqual(before.body)
    await request(app).get(`/api/studies/${id}`).expect(200)
  })
})

describe('bad requests get a clear answer without a stack', () => {
  const clear = (answer: request.Response, code: string) => {
    expect(answer.body).toMatchObject({ error: { code } })
    expect(answer.headers['content-type']).toMatch(/json/)
    expect(JSON.stringify(answer.body)).not.toMatch(/\bat .*\.(ts|js):|node_modules/)
  }

  test('malformed JSON', async () => {
    const answer = await request(app)
      .post('/api/studies')
      .set('content-type', 'application/json')
      .send('{"study": ')
      .expect(400)
    clear(answer, 'bad-json')
  })
  test('a body of 2 MiB', async () => {
    const big = { study: { ...study(), about: 'x'.repeat(2 * 1024 * 1024) } }
    clear(await post(big).expect(413), 'too-large')
  })
  test.each(['nonsense', '00000000-0000-4000-8000-000000000000', "'; drop table studies; --"])(
    'the unknown id %s',
    async (id) => {
      clear(
        await request(app)
          .get(`/api/studies/${encodeURIComponent(id)}`)
          .expect(404),
        'not-found',
      )
    },
  )
  test('a malformed address', async () => {
    clear(await request(app).get('/api/studies/%E0%A4%A').expect(400), 'bad-address')
    clear(await request(app).get('/api/nothing').expect(404), 'no-such-address')
  })
  test('a study with faults names the path of each', async () => {
    const answer = await post({ study: { ...study(), title: '', decimals: 1.5 } }).expect(400)
    clear(answer, 'bad-study')
    const { problems } = (answer.body as { error: { details: { problems: { path: string }[] } } })
      .error.details
    expect(problems.map((p) => p.path)).toEqual(
      expect.arrayContaining(['study.title', 'study.decimals']),
    )
  })
  test('no study at all, or one no database can hold', async () => {
    clear(await post({}).expect(400), 'bad-study')
    clear(await request(app).post('/api/studies').expect(400), 'bad-study')
    clear(await post({ study: study('a\u0000b') }).expect(400), 'bad-study')
  })
  test('a save without a version or a save id', async () => {
    const { id } = await create()
    clear(await put(id, { study: study() }).expect(400), 'bad-study')
  })
  test('too many requests', async () => {
    const strict = createApp(partsFor({ requestsPerMinute: 2 }))
    await request(strict).get('/api/health').expect(200)
    await request(strict).get('/api/health').expect(200)
    clear(await request(strict).get('/api/health').expect(429), 'too-many')
  })
  test('a fault inside is logged and not told', async () => {
    const faulty = { ...createStudies(), list: () => Promise.reject(new Error('secret detail')) }
    const answer = await request(createApp(partsFor({ studies: faulty })))
      .get('/api/studies')
      .expect(500)
    clear(answer, 'internal')
    expect(JSON.stringify(answer.body)).not.toMatch(/secret/)
  })
})

test('connections that the database has dropped are replaced', async () => {
  await request(app).get('/api/studies').expect(200)
  // What a restart of the database does to a server: every open connection is cut.
  const other = new pg.Client({ connectionString: databaseUrl })
  await other.connect()
  await other.query(
    'SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()',
  )
  await other.end()
  const answers = []
  for (let i = 0; i < 5; i++) answers.push((await request(app).get('/api/studies')).status)
  expect(answers.at(-1)).toBe(200)
  expect(answers.every((status) => status === 200 || status === 503)).toBe(true)
})

test('without a database the API says that it is away', async () => {
  const away = connect('postgres://nobody:x@127.0.0.1:9/none')
  const answer = await request(createApp(partsFor({ pingDatabase: () => away.authenticate() })))
    .get('/api/health')
    .expect(503)
  expect(answer.body).toMatchObject({ error: { code: 'database-away' } })
  // Connecting anew puts the model back on the database of these tests.
  database = connect(databaseUrl)
})

test('the page may not run generated code', async () => {
  const { headers } = await request(app).get('/api/health')
  const policy = headers['content-security-policy']!
  expect(policy).toMatch(/script-src 'self'(;|$)/)
  expect(policy).not.toMatch(/unsafe-eval|upgrade-insecure/)
})

describe('settings', () => {
  test('have defaults on loopback', () => {
    expect(readSettings({ DATABASE_URL: 'postgres://x' })).toMatchObject({
      host: '127.0.0.1',
      port: 4620,
    })
  })
  test('name what cannot be used', () => {
    expect(() => readSettings({ DATABASE_URL: 'postgres://x', PORT: 'many' })).toThrow(/PORT/)
    expect(() => readSettings({})).toThrow(/DATABASE_URL/)
  })
})

import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { type AddressInfo, createServer } from 'node:net'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import {
  blankStudy,
  createdAnswerSchema,
  createStudy,
  listAnswerSchema,
  savedAnswerSchema,
  storedStudySchema,
  type Study,
  presentFormat,
} from '@yperkine/core'
import pg from 'pg'
import { pino } from 'pino'
import { DatabaseError, type Sequelize } from 'sequelize'
import request from 'supertest'
import { createApp } from './app'
import { connect, StudyRow } from './database'
import { createDrawings } from './drawings'
import { probeDatabase } from './health'
import { drawStudy } from './picture'
import { migrate } from './migrations'
import { readSettings } from './settings'
import { createStudies } from './studies'

const databaseUrl = process.env.DATABASE_URL ?? ''
const log = pino({ level: 'silent' })

let database: Sequelize
const drawings = createDrawings((study) => Promise.resolve(drawStudy(study)), log)
const partsFor = (overrides = {}) => ({
  studies: createStudies(drawings.ask),
  probeDatabase: () => probeDatabase(database)(),
  log,
  limits: { browser: 100_000, address: 1_000_000 },
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
  await drawings.askForMissing()
  await drawings.idle()
  app = createApp(partsFor())
})
afterAll(async () => {
  await drawings.idle()
  await database.close()
})

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
    const created = createdAnswerSchema.parse(body)
    expect(created.version).toBe(1)
    const again = await request(app).get(`/api/studies/${created.id}`).expect(200)
    expect(storedStudySchema.parse(again.body)).toEqual({ ...created, study: sent })
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
    expect(savedAnswerSchema.parse(saved.body).version).toBe(2)
    const kept = await request(app).get(`/api/studies/${id}`)
    expect(kept.body).toMatchObject({ id, version: 2, study: { title: 'Neap tide' } })
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

test('what is long goes packed', async () => {
  const list = await request(app).get('/api/studies').set('accept-encoding', 'gzip').expect(200)
  expect(list.headers['content-encoding']).toBe('gzip')
  expect(list.body.studies.length).toBeGreaterThan(0)
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
    clear(await request(app).post('/api/studies').expect(415), 'not-json')
    clear(await post({ study: study('a\u0000b') }).expect(400), 'bad-study')
  })
  test('a save without a version or a save id', async () => {
    const { id } = await create()
    clear(await put(id, { study: study() }).expect(400), 'bad-study')
  })
  test('too many requests of one browser, and when to come back', async () => {
    const strict = createApp(partsFor({ limits: { browser: 7, address: 1000 } }))
    const list = (browser: string) =>
      request(strict).get('/api/studies').set('x-yperkine-browser', browser)
    const [mine, other] = [randomUUID(), randomUUID()]
    await list(mine).expect(200)
    await list(mine).expect(200)
    const refused = await list(mine).expect(429)
    clear(refused, 'too-many')
    expect(Number(refused.headers['retry-after'])).toBeGreaterThan(0)
    await list(other).expect(200)
    // Whether it lives is never refused.
    for (let i = 0; i < 20; i++) await request(strict).get('/api/health').expect(200)
  })
  test('200 savers behind one address, each every other second for a minute', async () => {
    const usual = createApp(partsFor({ limits: readSettings({ DATABASE_URL: 'x' }).limits }))
    const { id } = await create()
    // 30 saves of one browser, and the first ones of all others, are within both limits.
    const body = { version: 99, study: study(), saveId: randomUUID() }
    const save = (browser: string) =>
      request(usual).put(`/api/studies/${id}`).set('x-yperkine-browser', browser).send(body)
    const busy = randomUUID()
    for (let i = 0; i < 30; i++) expect((await save(busy)).status).toBe(409)
    for (let i = 0; i < 200; i++) expect((await save(randomUUID())).status).toBe(409)
    const { limits } = readSettings({ DATABASE_URL: 'x' })
    expect(limits.browser).toBeGreaterThan(2 * 30)
    expect(limits.address).toBeGreaterThan(200 * 2 * 30)
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

async function withClient<T>(work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: databaseUrl })
  await client.connect()
  return work(client).finally(() => client.end())
}

test('connections that the database has dropped are replaced', async () => {
  await request(app).get('/api/studies').expect(200)
  // What a restart of the database does to a server: every open connection is cut.
  await withClient((client) =>
    client.query(
      'SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()',
    ),
  )
  const answers = []
  for (let i = 0; i < 5; i++) answers.push((await request(app).get('/api/studies')).status)
  expect(answers.at(-1)).toBe(200)
  expect(answers.every((status) => status === 200 || status === 503)).toBe(true)
})

test('the application is no superuser of its database, and owns what it works with', async () => {
  const { rows } = await withClient((client) =>
    client.query(`SELECT rolsuper OR rolcreatedb OR rolcreaterole AS mighty,
      pg_get_userbyid(datdba) = current_user AS owner
      FROM pg_roles, pg_database WHERE rolname = current_user AND datname = current_database()`),
  )
  expect(rows).toEqual([{ mighty: false, owner: true }])
})

test('without a database the server lives, says that it is away, and is not ready', async () => {
  const away = connect('postgres://nobody:x@127.0.0.1:9/none')
  const alone = createApp(partsFor({ probeDatabase: probeDatabase(away) }))
  const answer = await request(alone).get('/api/ready').expect(503)
  expect(answer.body).toMatchObject({ error: { code: 'database-away' } })
  const alive = await request(alone).get('/api/health').expect(200)
  expect(alive.body).toEqual({ status: 'ok', database: 'away' })
  await away.close()
  // Connecting anew puts the model back on the database of these tests.
  await database.close()
  database = connect(databaseUrl)
  await request(app).get('/api/ready').expect(200)
})

test('a connection that breaks while it is being opened ends no process', async () => {
  // A listener that hangs up on whoever comes, as a database that is being killed does.
  const rude = createServer((socket) => {
    socket.write('E')
    socket.destroy()
  })
  await new Promise<void>((resolve) => rude.listen(0, '127.0.0.1', resolve))
  const { port } = rude.address() as AddressInfo
  const thrown: unknown[] = []
  const note = (error: unknown) => thrown.push(error)
  process.on('uncaughtException', note)
  const cut = connect(`postgres://x:x@127.0.0.1:${port}/x`)
  const ways = await Promise.allSettled(Array.from({ length: 10 }, () => cut.query('SELECT 1')))
  expect(ways.map((w) => w.status)).toEqual(ways.map(() => 'rejected'))
  const client = new (cut.connectionManager as unknown as { lib: typeof pg }).lib.Client()
  // What pg does when the socket breaks after the promise was refused.
  expect(() => client.emit('error', new Error('Connection terminated unexpectedly'))).not.toThrow()
  process.off('uncaughtException', note)
  await new Promise((resolve) => rude.close(resolve))
  expect(thrown).toEqual([])
  await cut.close()
  await database.close()
  database = connect(databaseUrl)
})

test('a full disk is told as such', async () => {
  const full = Object.assign(new Error('could not extend file'), { code: '53100', sql: '' })
  const faulty = {
    ...createStudies(),
    save: () => Promise.reject(new DatabaseError(full)),
  }
  const body = { version: 1, study: study(), saveId: randomUUID() }
  const stuffed = createApp(partsFor({ studies: faulty }))
  const answer = await request(stuffed).put(`/api/studies/${randomUUID()}`).send(body).expect(507)
  expect(answer.body).toMatchObject({ error: { code: 'disk-full' } })
  const { body: health } = await request(stuffed).get('/api/health').expect(200)
  expect(health).toMatchObject({ database: 'full' })
})

test('the page may not run generated code', async () => {
  const { headers } = await request(app).get('/api/health')
  const policy = headers['content-security-policy']!
  expect(policy).toMatch(/script-src 'self'(;|$)/)
  expect(policy).not.toMatch(/unsafe-eval|upgrade-insecure/)
})

describe('the list', () => {
  const list = async (query: string) =>
    listAnswerSchema.parse((await request(app).get(`/api/studies?${query}`).expect(200)).body)

  test('comes in pages that follow each other without gaps or repetitions', async () => {
    for (let i = 0; i < 7; i++) await create(`Paged ${i}`)
    const all = (await list('search=Paged')).studies.map((s) => s.id)
    const found: string[] = []
    let cursor: string | null = ''
    for (let pages = 0; cursor !== null; pages++) {
      expect(pages).toBeLessThan(10)
      const page = await list(`search=Paged&limit=3${cursor && `&cursor=${cursor}`}`)
      expect(page.studies.length).toBeLessThanOrEqual(3)
      found.push(...page.studies.map((s) => s.id))
      cursor = page.next
    }
    expect(found).toEqual(all)
    expect(new Set(found).size).toBeGreaterThanOrEqual(7)
  })
  test('is searched by words of the title, in any case and order, and by topic', async () => {
    await create('Ebb at 100% of the neap_tide')
    const titles = async (query: string) => (await list(query)).studies.map((s) => s.title)
    expect(await titles('search=NEAP_TIDE ebb')).toEqual(['Ebb at 100% of the neap_tide'])
    expect(await titles('search=100%25')).toEqual(['Ebb at 100% of the neap_tide'])
    expect(await titles('search=neap%25ebb')).toEqual([])
    expect(await titles('topic=extremes')).toContain('Lamp to channel edge')
    expect(await titles('search=extremes lamp')).toEqual(['Lamp to channel edge'])
    expect(await titles("search=' OR 1=1 --")).toEqual([])
  })
  test.each(['cursor=nonsense', 'limit=0', 'limit=1000', 'limit=x', 'search=a%00b'])(
    'asked for by %s it is refused in words',
    async (query) => {
      const answer = await request(app).get(`/api/studies?${query}`).expect(400)
      expect(answer.body).toMatchObject({ error: { code: 'bad-query' } })
    },
  )
  test('a saved study gets the picture of its latest version, apart from the answer', async () => {
    const { id } = await create('Drawn later')
    const curve = createStudy('x^3')
    if (!curve.ok) throw new Error('x^3 is a formula')
    const drawn = { ...curve.study, title: 'Drawn later' }
    await put(id, { version: 1, study: drawn, saveId: randomUUID() }).expect(200)
    await drawings.idle()
    const [summary] = (await list('search=Drawn later')).studies
    expect(summary).toMatchObject({ version: 2, drawing: false })
    expect(summary!.thumbnail!.path).toMatch(/^M[\d.-]+ [\d.-]+L/)
  })
  test('a study with a span no screen can show stops nothing and hides no other', async () => {
    const curve = createStudy('x')
    if (!curve.ok) throw new Error('x is a formula')
    const thin = curve.study.lines.map((l) => ({ ...l, span: { from: '0', to: '1E-310' } }))
    const body = { study: { ...curve.study, title: 'Too thin', lines: thin } }
    const { body: made } = await post(body).expect(201)
    const { id } = made as { id: string }
    await drawings.idle()
    const { studies } = await list('')
    expect(studies.map((s) => s.title)).toEqual(
      expect.arrayContaining(['Too thin', 'The flood tide']),
    )
    await request(app).get('/api/health').expect(200)
    await request(app).get(`/api/studies/${id}`).expect(200)
  })
  test('a study that cannot be read any more stays in the list, and says so when it is opened', async () => {
    const row = await StudyRow.create({
      study: { ...study('From tomorrow'), format: 99 } as unknown as Study,
      saveId: null,
    })
    drawings.ask(row.id)
    await drawings.idle()
    const [summary] = (await list('search=From tomorrow')).studies
    expect(summary).toMatchObject({ id: row.id, format: 99, thumbnail: { path: '' } })
    const answer = await request(app).get(`/api/studies/${row.id}`).expect(422)
    expect(answer.body).toMatchObject({ error: { code: 'newer-study' } })
    await row.destroy()
    const damaged = await StudyRow.create({
      study: { ...study('Damaged'), decimals: -5 },
      saveId: null,
    })
    const refused = await request(app).get(`/api/studies/${damaged.id}`).expect(422)
    expect(refused.body).toMatchObject({ error: { code: 'unreadable-study' } })
    await damaged.destroy()
  })
  test('a study of an older format is answered in the present one', async () => {
    const { answers: _, ...present } = study('From format 1')
    const look = { moved: { '0.label': [3, 4] } }
    const curve = { kind: 'curve', id: 'line1', name: 'q', unit: '', formula: 't', look }
    const old = {
      ...present,
      format: 1,
      lines: [{ ...curve, span: { from: '0', to: '1' } }],
      lanes: [{ id: 'lane1', curve: 'q', order: 0, frame: null }],
    }
    const row = await StudyRow.create({ study: old as unknown as Study, saveId: null })
    const { body, headers } = await request(app).get(`/api/studies/${row.id}`).expect(200)
    expect(headers['x-yperkine-format']).toBe(String(presentFormat))
    const read = storedStudySchema.parse(body).study
    expect(read).toMatchObject({ format: presentFormat, lanes: [{ kind: 'lane', id: 'lane1' }] })
    expect(read.lines[0]!.look).toEqual({ moved: { '#0': [3, 4] } })
    // A page of that version may still send it.
    await post({ study: old }).expect(201)
    await row.destroy()
  })
  test('what this version does not know is refused by name, and nothing is kept', async () => {
    const { id } = await create('As it was')
    const tomorrow = { ...study('As it was'), steps: [] }
    const save = { version: 1, study: tomorrow, saveId: randomUUID() }
    for (const answer of [await post({ study: tomorrow }), await put(id, save)]) {
      expect(answer.status).toBe(400)
      expect(answer.body).toMatchObject({
        error: { code: 'newer-study', details: { problems: [{ path: 'study.steps' }] } },
      })
    }
    const kept = await request(app).get(`/api/studies/${id}`)
    expect(kept.body).toMatchObject({ version: 1 })
  })
  test('a picture that fails is blank and is not tried again and again', async () => {
    let tried = 0
    const failing = createDrawings(() => {
      tried += 1
      return Promise.reject(new Error('no picture in 5000 ms'))
    }, log)
    const row = await StudyRow.create({ study: study('No picture'), saveId: null })
    for (let i = 0; i < 3; i++) {
      failing.ask(row.id)
      await failing.idle()
    }
    expect(tried).toBe(1)
  })
})

describe('doors', () => {
  const host = (name: string) => request(app).get('/api/studies').set('host', name)
  test.each(['localhost:4620', '127.0.0.1', '[::1]:4620', 'LOCALHOST'])(
    '%s is this machine',
    async (name) => {
      await host(name).expect(200)
    },
  )
  test.each(['evil.example', 'localhost.evil.example:4620', '192.168.1.5', 'localhost@evil', ''])(
    'the foreign name “%s” is refused, reading and deleting alike',
    async (name) => {
      const answer = await host(name).expect(403)
      expect(answer.body).toMatchObject({ error: { code: 'foreign-host' } })
      const { id } = await create()
      await request(app).delete(`/api/studies/${id}`).set('host', name).expect(403)
      await request(app).get(`/api/studies/${id}`).expect(200)
    },
  )
  test('a name that was set is known too', async () => {
    const school = createApp(partsFor({ hostNames: ['lagoon.example'] }))
    await request(school).get('/api/studies').set('host', 'lagoon.example').expect(200)
    await request(school).get('/api/studies').set('host', 'other.example').expect(403)
  })
  test.each([
    'http://evil.example',
    'http://localhost:3000',
    'null',
    'https://localhost:4620.evil',
  ])('a page of %s may not ask', async (origin) => {
    const { id } = await create()
    const asked = () => request(app).delete(`/api/studies/${id}`).set('host', 'localhost:4620')
    const answer = await asked().set('origin', origin).expect(403)
    expect(answer.body).toMatchObject({ error: { code: 'foreign-origin' } })
    await asked().set('origin', 'http://localhost:4620').expect(204)
  })
  test.each(['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data'])(
    'what is sent as %s is not taken',
    async (type) => {
      const { id } = await create()
      const text = JSON.stringify({ version: 1, study: study(), saveId: 'a' })
      const sent = [
        await request(app).post('/api/studies').set('content-type', type).send(text),
        await request(app).put(`/api/studies/${id}`).set('content-type', type).send(text),
        await request(app).post(`/api/studies/${id}/restore`).set('content-type', type).send(text),
      ]
      expect(sent.map((s) => s.status)).toEqual([415, 415, 415])
    },
  )
  test.each(['gzip', 'deflate', 'br'])(
    'a body of broken %s is the sender’s fault',
    async (packing) => {
      const answer = await request(app)
        .post('/api/studies')
        .set('content-type', 'application/json')
        .set('content-encoding', packing)
        .serialize((body) => body as unknown as string)
        .send(Buffer.from('{"study": "not packed at all"}') as unknown as object)
      expect([answer.status, answer.body]).toEqual([
        400,
        { error: { code: 'bad-encoding', message: expect.any(String) } },
      ])
    },
  )
  test.each([
    ['gzip', gzipSync],
    ['br', brotliCompressSync],
  ])('one that was packed by %s is read', async (packing, pack) => {
    await request(app)
      .post('/api/studies')
      .set('content-type', 'application/json')
      .set('content-encoding', packing)
      .serialize((body) => body as unknown as string)
      .send(pack(JSON.stringify({ study: study('Packed') })) as unknown as object)
      .expect(201)
  })
  test.each([2 ** 31, 2 ** 53, -1, 0, 1.5])('the version %d is none', async (version) => {
    const { id } = await create()
    await put(id, { version, study: study(), saveId: 'a' }).expect(400)
  })
  test.each(['a\u0000b', '\ud800', '', 'x'.repeat(101)])(
    'the save id %j is refused',
    async (saveId) => {
      const { id } = await create()
      await put(id, { version: 1, study: study(), saveId }).expect(400)
    },
  )
  test('parts of files are lawful, impossible ones are told', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'page-'))
    writeFileSync(path.join(folder, 'index.html'), '<!doctype html><title>Page</title>')
    writeFileSync(path.join(folder, 'note.txt'), '0123456789')
    const page = createApp(partsFor({ webRoot: folder }))
    const file = () => request(page).get('/note.txt')
    await file().set('range', 'bytes=0-3').expect(206, '0123')
    const { etag } = (await file().expect(200)).headers
    await file().set('if-none-match', etag!).expect(304)
    const bad = await file().set('range', 'bytes=50-60').expect(416)
    expect(bad.body).toMatchObject({ error: { code: 'bad-range' } })
    expect(bad.headers['content-range']).toBe('bytes */10')
    const failed = await file().set('if-match', '"another"').expect(412)
    expect(failed.body).toMatchObject({ error: { code: 'precondition-failed' } })
    await request(page).get('/studies/x').set('range', 'bytes=900-').expect(416)
    rmSync(folder, { recursive: true })
  })
})

describe('settings', () => {
  test.each(['true', 'yes', 'on'])('no server trusts every proxy: %s', (text) => {
    expect(() => readSettings({ DATABASE_URL: 'x', TRUST_PROXY: text })).toThrow(/TRUST_PROXY/)
  })
  test('proxies are counted or named', () => {
    const trusted = (text: string) =>
      readSettings({ DATABASE_URL: 'x', TRUST_PROXY: text }).trustProxy
    expect(trusted('2')).toBe(2)
    expect(trusted('10.0.0.1, loopback')).toEqual(['10.0.0.1', 'loopback'])
  })
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

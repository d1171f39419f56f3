import { randomUUID } from 'node:crypto'
import request from 'supertest'
import { createApp } from '../app'
import { readSettings } from '../settings'
import { createStudies } from '../studies'
import { app, study, post, create, put, partsFor } from './setUp'

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

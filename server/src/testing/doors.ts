import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import request from 'supertest'
import { createApp } from '../app'
import { app, create, partsFor, study, put } from './setUp'

test('the page may not run generated code', async () => {
  const { headers } = await request(app).get('/api/health')
  const policy = headers['content-security-policy']!
  expect(policy).toMatch(/script-src 'self'(;|$)/)
  expect(policy).not.toMatch(/unsafe-eval|upgrade-insecure/)
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
        .send(Buffer.from('{"study": "not packed at all"}'))
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

describe('frames', () => {
  const webRoot = mkdtempSync(path.join(tmpdir(), 'page-'))
  mkdirSync(path.join(webRoot, 'assets'))
  for (const file of ['index.html', 'assets/x.js']) writeFileSync(path.join(webRoot, file), '')
  const alone = createApp(partsFor({ webRoot }))
  const course = createApp(partsFor({ webRoot, frameOrigins: ['https://course.example'] }))
  afterAll(() => rmSync(webRoot, { recursive: true }))
  const policyOf = async (application: typeof app, at: string) => {
    const { headers } = await request(application).get(at)
    const found = /frame-ancestors ([^;]*)/.exec(headers['content-security-policy']!)
    return { ancestors: found?.[1], older: headers['x-frame-options'] }
  }
  const shut = { ancestors: "'none'", older: 'DENY' }
  test.each(['/studies/one?view=read', '/studies/one?view=picture', '/studies/one/?view=read'])(
    '%s may be shown by those who are named',
    async (at) => {
      expect(await policyOf(course, at)).toEqual({
        ancestors: "'self' https://course.example",
        older: undefined,
      })
      expect(await policyOf(alone, at)).toEqual(shut)
    },
  )
  test.each([
    '/',
    '/?view=read',
    '/studies/one',
    '/studies/one?view=bench',
    '/studies/one?view=read&view=bench',
    '/studies/one?view[a]=read',
    '/studies/one/speaker?view=read',
    '/api/studies?view=read',
    '/assets/x.js?view=picture',
  ])('%s by nobody', async (at) => {
    expect(await policyOf(course, at)).toEqual(shut)
  })
  test('who may is told', async () => {
    const { body } = await request(course).get('/api/framing').expect(200)
    expect(body).toEqual({ origins: ['https://course.example'] })
  })
})

import { randomUUID } from 'node:crypto'
import {
  createdAnswerSchema,
  savedAnswerSchema,
  storedStudySchema,
  type Study,
  type thumbnail,
} from '@yperkine/core'
import request from 'supertest'
import { StudyRow } from '../database'
import { migrate } from '../migrations'
import { app, database, study, post, create, put } from './setUp'

describe('the first start', () => {
  test('brings demo studies, newest first, each with a drawing', async () => {
    const { body } = await request(app).get('/api/studies').expect(200)
    const { studies } = body as {
      studies: {
        title: string
        updatedAt: string
        topics: string[]
        thumbnail: ReturnType<typeof thumbnail>
      }[]
    }
    expect(studies.length).toBeGreaterThanOrEqual(4)
    expect(studies[0]).toMatchObject({ title: 'The flood tide', topics: ['rates'] })
    for (const { thumbnail } of studies) {
      // A curve, or the faces of a surface.
      expect(thumbnail.path || thumbnail.items?.[0]?.d).toMatch(/^M[\d.-]+ [\d.-]+L/)
    }
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

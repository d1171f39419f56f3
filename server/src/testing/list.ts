import { randomUUID } from 'node:crypto'
import {
  createStudy,
  listAnswerSchema,
  storedStudySchema,
  type Study,
  presentFormat,
} from '@yperkine/core'
import request from 'supertest'
import { StudyRow } from '../database'
import { createDrawings } from '../drawings'
import { app, create, put, study, drawings, post, log } from './setUp'

const list = async (query: string) =>
  listAnswerSchema.parse((await request(app).get(`/api/studies?${query}`).expect(200)).body)

describe('the list', () => {
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
})

describe('the list, where a study is old, strange or cannot be drawn', () => {
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
    const tomorrow = { ...study('As it was'), terms: [] }
    const save = { version: 1, study: tomorrow, saveId: randomUUID() }
    for (const answer of [await post({ study: tomorrow }), await put(id, save)]) {
      expect(answer.status).toBe(400)
      expect(answer.body).toMatchObject({
        error: { code: 'newer-study', details: { problems: [{ path: 'study.terms' }] } },
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

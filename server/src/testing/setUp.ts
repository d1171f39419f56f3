import { blankStudy, type Study } from '@yperkine/core'
import { pino } from 'pino'
import type { Sequelize } from 'sequelize'
import request from 'supertest'
import { createApp } from '../app'
import { connect, patienceAtStart } from '../database'
import { createDrawings } from '../drawings'
import { probeDatabase } from '../health'
import { drawStudy } from '../picture'
import { migrate } from '../migrations'
import { createStudies } from '../studies'

export const databaseUrl = process.env.DATABASE_URL ?? ''
export const log = pino({ level: 'silent' })

export let database: Sequelize

export const drawings = createDrawings((study) => Promise.resolve(drawStudy(study)), log)

export const partsFor = (overrides = {}) => ({
  studies: createStudies(drawings.ask),
  probeDatabase: () => probeDatabase(database)(),
  log,
  limits: { browser: 100_000, address: 1_000_000 },
  ...overrides,
})

export let app: ReturnType<typeof createApp>

export const study = (title = 'Spring tide'): Study => ({ ...blankStudy(), title })

export const post = (body: object) => request(app).post('/api/studies').send(body)

export const put = (id: string, body: object) => request(app).put(`/api/studies/${id}`).send(body)

export const create = async (title?: string) =>
  (await post({ study: study(title) }).expect(201)).body as { id: string; version: number }

/** Connecting anew puts the model back on the database of these tests. */
export async function reconnect() {
  await database.close()
  database = connect(databaseUrl, patienceAtStart)
}

beforeAll(async () => {
  if (databaseUrl === '') throw new Error('these tests want DATABASE_URL; run npm test')
  database = connect(databaseUrl, patienceAtStart)
  await migrate(database, { demo: true })
  await drawings.askForMissing()
  await drawings.idle()
  app = createApp(partsFor())
  // All examples are drawn first, which a machine that is busy takes its time for.
}, 3 * patienceAtStart)

afterAll(async () => {
  await drawings.idle()
  await database.close()
})

import { randomUUID } from 'node:crypto'
import { type AddressInfo, createServer } from 'node:net'
import pg from 'pg'
import { DatabaseError } from 'sequelize'
import request from 'supertest'
import { createApp } from './app'
import { connect } from './database'
import { probeDatabase } from './health'
import { createStudies } from './studies'
import { app, databaseUrl, partsFor, reconnect, study } from './testing/setUp'
// One database serves all of these, one after the other.
import './testing/keeping'
import './testing/badRequests'
import './testing/list'
import './testing/doors'

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
  await reconnect()
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
  await reconnect()
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

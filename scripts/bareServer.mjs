import { readFileSync } from 'node:fs'
import express from 'express'
import pg from 'pg'

/**
 * What the server is measured beside: the same statements through the same driver, and the same
 * bytes back, with nothing around them. The bytes are what the real server has answered.
 */
const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 10 })
const answers = JSON.parse(readFileSync(process.env.ANSWERS, 'utf8'))
const app = express()
app.get('/api/studies', async (_request, response) => {
  await pool.query(
    `SELECT id, version, title, about, topics, picture, drawn, updated_at FROM studies
     WHERE deleted_at IS NULL ORDER BY updated_at DESC, id DESC LIMIT 101`,
  )
  response.type('application/json').send(answers.list)
})
app.get('/api/studies/:id', async (request, response) => {
  await pool.query(
    'SELECT id, version, study::text, checked, updated_at FROM studies WHERE id = $1 AND deleted_at IS NULL',
    [request.params.id],
  )
  response.type('application/json').send(answers.study)
})
app.put(
  '/api/studies/:id',
  express.text({ type: '*/*', limit: '1mb' }),
  async (request, response) => {
    await pool.query(
      `UPDATE studies SET study = $1, save_id = $2, topics = $3, checked = $4, version = version + 1,
     updated_at = date_trunc('milliseconds', now())
     WHERE id = $5 AND deleted_at IS NULL RETURNING version, updated_at`,
      [answers.kept, 'bare', [], '', request.params.id],
    )
    response.type('application/json').send(answers.saved)
  },
)
const server = app.listen(0, '127.0.0.1', () => {
  console.log(`listening on http://127.0.0.1:${server.address().port}`)
})

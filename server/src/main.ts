import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { createApp } from './app'
import { connect } from './database'
import { migrate } from './migrations'
import { readSettings } from './settings'
import { createStudies } from './studies'

const drainMilliseconds = 5000

const settings = readSettings(process.env)
const log = pino({ level: settings.logLevel })
const sequelize = connect(settings.databaseUrl)
await migrate(sequelize, { demo: settings.demoStudies })

const app = createApp({
  studies: createStudies(),
  pingDatabase: () => sequelize.authenticate(),
  log,
  requestsPerMinute: settings.requestsPerMinute,
  webRoot: fileURLToPath(new URL('../../web/dist', import.meta.url)),
})

const server = app.listen(settings.port, settings.host, (error) => {
  if (error) {
    console.error(`the server cannot listen on port ${settings.port}: ${error.message}`)
    process.exit(1)
  }
  const address = server.address()
  const port = typeof address === 'object' && address ? address.port : settings.port
  // The start command waits for this line.
  console.log(`listening on http://${settings.host}:${port}`)
})

let stopping = false
async function stop() {
  if (stopping) return
  stopping = true
  const closed = new Promise((resolve) => server.close(resolve))
  server.closeIdleConnections()
  const late = setTimeout(() => server.closeAllConnections(), drainMilliseconds)
  await closed
  clearTimeout(late)
  await sequelize.close()
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
process.on('SIGINT', () => void stop())

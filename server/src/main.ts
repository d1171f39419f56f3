import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { createApp } from './app'
import { connect, patienceAtStart } from './database'
import { createDrawings } from './drawings'
import { createThreadDrawing } from './drawInThread'
import { probeDatabase } from './health'
import { migrate } from './migrations'
import { readSettings } from './settings'
import { createStudies } from './studies'

const drainMilliseconds = 5000
/** A study that is being worked on is drawn every few seconds at the most. */
const drawingRest = 3000

const settings = readSettings(process.env)
const log = pino({ level: settings.logLevel })
const starting = connect(settings.databaseUrl, patienceAtStart)
await migrate(starting, { demo: settings.demoStudies })
await starting.close()
const sequelize = connect(settings.databaseUrl)

const thread = createThreadDrawing(new URL('./drawingThread.js', import.meta.url))
const drawings = createDrawings(thread.draw, log, drawingRest)
const app = createApp({
  studies: createStudies(drawings.ask),
  probeDatabase: probeDatabase(sequelize),
  log,
  limits: settings.limits,
  hostNames: settings.hostNames,
  frameOrigins: settings.frameOrigins,
  trustProxy: settings.trustProxy,
  webRoot: fileURLToPath(new URL('../../web/dist', import.meta.url)),
})
drawings
  .askForMissing()
  .catch((error: unknown) => log.warn({ err: error }, 'pictures not asked for'))

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
  drawings.stop()
  await drawings.idle()
  await thread.stop()
  await sequelize.close()
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
process.on('SIGINT', () => void stop())

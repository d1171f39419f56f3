import { spawn } from 'node:child_process'
import path from 'node:path'
import { createInterface } from 'node:readline'
import { keptFolder, startDatabase } from './database.mjs'
import { buildAll, checkNode, installPackages, root } from './install.mjs'
import { tryPort } from './run.mjs'
import { Explained, runMain, say } from './say.mjs'

const defaultPort = 4620

function askedPort() {
  const text = process.env.PORT
  if (text === undefined || text === '') return defaultPort
  const port = Number(text)
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new Explained(`PORT is “${text}”; it must be a whole number up to 65535.`)
  }
  return port
}

async function checkPort(port, host) {
  const fault = port === 0 ? null : await tryPort(port, host)
  if (fault === 'EADDRINUSE') {
    throw new Explained(
      `Port ${port} is taken by another program (or Yperkine runs already). Stop that one, or choose another port: PORT=${port + 1} npm start`,
    )
  }
  if (fault === 'EACCES') {
    throw new Explained(`Port ${port} may not be used by this user. Choose one above 1023.`)
  }
  if (fault) throw new Explained(`Port ${port} on ${host} cannot be used (${fault}).`)
}

/** Starts the built server and resolves with its address once it listens. */
function startServer(environment) {
  const child = spawn(process.execPath, [path.join(root, 'server', 'dist', 'main.js')], {
    cwd: root,
    env: environment,
    // Out of the terminal's Ctrl-C: this script tells it when to stop.
    detached: true,
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const ended = new Promise((resolve) => child.on('exit', resolve))
  const address = new Promise((resolve, reject) => {
    // The line with the address is for this script; all others, then and later, are the server's log.
    createInterface({ input: child.stdout }).on('line', (line) => {
      const found = /^listening on (\S+)/.exec(line)
      if (found) resolve(found[1])
      else console.log(line)
    })
    void ended.then(() => reject(new Explained('The server ended before it could listen.')))
  })
  return { child, ended, address }
}

runMain(async () => {
  const started = Date.now()
  checkNode()
  const port = askedPort()
  const host = process.env.HOST ?? '127.0.0.1'
  await checkPort(port, host)

  // From here on Ctrl-C must not leave a database behind, however early it comes.
  let stopAsked = false
  let stop = async () => process.exit(130)
  const onSignal = () => {
    if (stopAsked) return
    stopAsked = true
    void stop()
  }
  process.on('SIGINT', onSignal)
  process.on('SIGTERM', onSignal)
  process.on('SIGHUP', onSignal)

  await installPackages()
  await buildAll()
  let db = null
  if (process.env.DATABASE_URL) say('Using the database named by DATABASE_URL.')
  else {
    say('Starting the database …')
    const starting = startDatabase(keptFolder(), {
      onEnd: () => say('The database has ended by itself; starting it again …'),
    })
    stop = async () => {
      await (await starting).stop()
      process.exit(130)
    }
    db = await starting
  }
  if (stopAsked) return
  const server = startServer({
    ...process.env,
    PORT: String(port),
    HOST: host,
    DATABASE_URL: db?.url ?? process.env.DATABASE_URL,
  })
  stop = async () => {
    say('\nStopping the server …')
    server.child.kill('SIGTERM')
    await server.ended
    if (db) {
      say('Stopping the database …')
      await db.stop()
    }
    say('Stopped.')
    process.exit(0)
  }
  void server.ended
    .then(async (code) => {
      if (stopAsked) return
      stopAsked = true
      await db?.stop()
      throw new Explained(`The server ended by itself (code ${code}).`)
    })
    .catch((error) => {
      console.error(error.message)
      process.exit(1)
    })
  const address = await server.address.catch(async (error) => {
    await db?.stop()
    throw error
  })
  const seconds = ((Date.now() - started) / 1000).toFixed(1)
  say(`\nYperkine is ready after ${seconds} s:  ${address}\nCtrl-C stops it.`)
})

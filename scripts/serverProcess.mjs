import { spawn } from 'node:child_process'
import path from 'node:path'
import { root } from './install.mjs'

/** Starts the built server on a port of its own choosing; resolves once it listens. */
export function startServer(databaseUrl, port = 0) {
  const child = spawn(process.execPath, [path.join(root, 'server/dist/main.js')], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      DEMO_STUDIES: 'off',
      REQUESTS_PER_MINUTE: '1000000',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const ended = new Promise((resolve) => child.on('exit', resolve))
  const stop = async (signal = 'SIGTERM') => {
    child.kill(signal)
    await ended
  }
  return new Promise((resolve, reject) => {
    void ended.then(() => reject(new Error('the server ended before it could listen')))
    child.stdout.on('data', (data) => {
      const found = /listening on (\S+)/.exec(data.toString())
      if (found) resolve({ address: found[1], stop })
    })
  })
}

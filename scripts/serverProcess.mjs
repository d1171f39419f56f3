import { spawn } from 'node:child_process'
import path from 'node:path'
import { root } from './install.mjs'

/** Runs a script that tells its address when it listens, and resolves with that and a way to stop it. */
export function startProcess(script, environment) {
  const child = spawn(process.execPath, [script], {
    cwd: root,
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const ended = new Promise((resolve) => child.on('exit', resolve))
  const stop = async (signal = 'SIGTERM') => {
    child.kill(signal)
    await ended
  }
  return new Promise((resolve, reject) => {
    void ended.then(() => reject(new Error(`${script} ended before it could listen`)))
    child.stdout.on('data', (data) => {
      const found = /listening on (\S+)/.exec(data.toString())
      if (found) resolve({ address: found[1], stop, hasEnded: () => child.exitCode !== null })
    })
  })
}

/** Starts the built server on a port of its own choosing; resolves once it listens. */
export const startServer = (databaseUrl, port = 0) =>
  startProcess(path.join(root, 'server/dist/main.js'), {
    DATABASE_URL: databaseUrl,
    PORT: String(port),
    DEMO_STUDIES: 'off',
    REQUESTS_PER_MINUTE: '100000000',
  })

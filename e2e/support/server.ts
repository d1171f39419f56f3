import { type ChildProcess, spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'

const main = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url))

/** A running server that a test may kill and start again on the same port. */
export interface Server {
  url: string
  start: () => Promise<void>
  /** SIGTERM drains, SIGKILL does not. */
  stop: (signal?: 'SIGTERM' | 'SIGKILL') => Promise<void>
}

export async function startServer(
  databaseUrl = process.env.BROWSER_DATABASE_URL,
  settings: Record<string, string> = {},
): Promise<Server> {
  if (!databaseUrl) throw new Error('browser tests want BROWSER_DATABASE_URL; run npm test')
  let child: ChildProcess | null = null
  let port = 0
  const start = () =>
    new Promise<void>((resolve, reject) => {
      const started = spawn(process.execPath, [main], {
        env: {
          ...process.env,
          DATABASE_URL: databaseUrl,
          PORT: String(port),
          REQUESTS_PER_MINUTE: '100000',
          ...settings,
        },
        stdio: ['ignore', 'pipe', 'inherit'],
      })
      child = started
      started.on('exit', (code) => reject(new Error(`the server ended with code ${code}`)))
      started.stdout.on('data', (data: Buffer) => {
        const found = /listening on \S+:(\d+)/.exec(data.toString())
        if (!found) return
        port = Number(found[1])
        resolve()
      })
    })
  const stop = (signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM') =>
    new Promise<void>((resolve) => {
      if (!child || child.exitCode !== null) return resolve()
      child.on('exit', () => resolve())
      child.kill(signal)
    })
  await start()
  return { url: `http://127.0.0.1:${port}`, start, stop }
}

import { spawn } from 'node:child_process'
import { createServer } from 'node:net'

/** Runs a command to its end; its output goes on to ours unless `quiet`. Resolves with its code. */
export function run(command, args, options = {}) {
  const { quiet = false, ...rest } = options
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: quiet ? 'pipe' : 'inherit', ...rest })
    let output = ''
    child.stdout?.on('data', (data) => (output += data))
    child.stderr?.on('data', (data) => (output += data))
    child.on('error', reject)
    child.on('close', (code, signal) => resolve({ code: code ?? (signal ? 1 : 0), output }))
  })
}

/** A port on loopback that nothing listens on at the moment. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer()
    probe.on('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => resolve(port))
    })
  })
}

/** Whether a port can be listened on; the error's code where it cannot. */
export function tryPort(port, host) {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.on('error', (error) => resolve(error.code))
    probe.listen(port, host, () => probe.close(() => resolve(null)))
  })
}

export const wait = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds))

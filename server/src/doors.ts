import type { RequestHandler } from 'express'
import { ApiError } from './errors'

const foreignHost = () =>
  new ApiError(403, 'foreign-host', 'this server does not answer under that name')
const foreignOrigin = () =>
  new ApiError(403, 'foreign-origin', 'pages from elsewhere may not ask this server')
const notJson = () =>
  new ApiError(415, 'not-json', 'the body must be JSON, sent as application/json')

/** The names by which a machine calls itself. */
const ownNames = ['localhost', '127.0.0.1', '[::1]']

/** The name in a Host header, without its port; null where there is none. */
function nameIn(host: string | undefined): string | null {
  const found = /^(\[[0-9a-f:.]+\]|[^:/@\s]+)(:\d{1,5})?$/i.exec(host ?? '')
  return found ? found[1]!.toLowerCase() : null
}

/**
 * At one's desk the server has no one to sign in, so it must be sure that who asks is a page of its
 * own, or a script on this machine. A foreign page can send requests here, and after giving its own
 * name this machine's address it can read what comes back: its Host is another name then. A page of
 * another address, another port included, is told by its Origin, which browsers send along with
 * everything that changes something; scripts send none.
 */
export function ownDoorsOnly(names: readonly string[]): RequestHandler {
  const known = new Set([...ownNames, ...names.map((name) => name.toLowerCase())])
  return (request, _response, next) => {
    const { host, origin } = request.headers
    const name = nameIn(host)
    if (name === null || !known.has(name)) throw foreignHost()
    if (origin !== undefined) {
      const own = [`http://${host}`, `https://${host}`].map((o) => o.toLowerCase())
      if (!own.includes(origin.toLowerCase())) throw foreignOrigin()
    }
    next()
  }
}

/**
 * What changes something is asked for in JSON: a form of a foreign page cannot send that. A request
 * that needs no body, as to restore a study, may come without one.
 */
export const jsonOnly: RequestHandler = (request, _response, next) => {
  const writes = request.method === 'POST' || request.method === 'PUT'
  const { headers } = request
  const sendsNothing =
    headers['content-type'] === undefined &&
    headers['transfer-encoding'] === undefined &&
    Number(headers['content-length'] ?? 0) === 0
  const bodyless = request.path.endsWith('/restore') && sendsNothing
  if (writes && !bodyless && !request.is('application/json')) throw notJson()
  next()
}

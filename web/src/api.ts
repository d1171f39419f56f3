import {
  createdAnswerSchema,
  errorAnswerSchema,
  listAnswerSchema,
  formatHeader,
  framingAnswerSchema,
  presentFormat,
  savedAnswerSchema,
  type StoredStudy,
  type Study,
} from '@yperkine/core'
import { gzipSync, strToU8 } from 'fflate'
import { browserId } from './browserId'

/** The server answered, and the answer is no. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message)
  }
}

/** No answer for now: it may be had later. */
export class TryLater extends Error {
  constructor(
    message: string,
    /** How long the server asks to wait, in seconds, or null where it does not say. */
    readonly waitSeconds: number | null = null,
    options?: ErrorOptions,
  ) {
    super(message, options)
  }
}

/** Nobody answered: the server is down or out of reach. */
export class Unreachable extends TryLater {}

/** A part of the program that is fetched when it is first needed. */
export const reach = <T>(part: Promise<T>): Promise<T> =>
  part.catch((error: unknown) => {
    throw new Unreachable('the server cannot be reached', null, { cause: error })
  })

/** What the server says where it cannot serve just now; others tell their status. */
const reasons: Record<string, string> = {
  'too-many': 'the server is busy and asks for a pause',
  'database-away': 'the database of the server does not answer',
  'disk-full': 'the disk of the server is full',
}

/** What a browser still sends of a page that has gone, in bytes; the rest of 64 KiB are headers. */
const mostKeptAlive = 60_000

/**
 * The body of a save. One that must outlive its page is packed where it is long; one that is too
 * long even then is sent all the same, and what this browser keeps of it stays until it has arrived.
 */
function packed(text: string, keepalive: boolean) {
  const headers: Record<string, string> = { 'content-type': 'application/json' }
  if (!keepalive) return { headers, body: text, keepalive }
  const bytes = strToU8(text)
  if (bytes.length <= mostKeptAlive) return { headers, body: text, keepalive }
  const small = gzipSync(bytes)
  return {
    headers: { ...headers, 'content-encoding': 'gzip' },
    body: small as BufferSource,
    keepalive: small.length <= mostKeptAlive,
  }
}

/** What is said where page and server are of different versions. */
const pageIsOlder =
  'the server is newer than this page: reload the page, and what is not saved yet stays in this browser'
const serverIsOlder = 'the server is older than this page, and cannot keep what this page writes'

/** An answer as it is agreed on; one that is not may come from a newer server. */
async function askFor<T>(
  schema: { safeParse: (answer: unknown) => { success: true; data: T } | { success: false } },
  ...request: Parameters<typeof ask>
): Promise<T> {
  const { answer, format } = await ask(...request)
  const read = schema.safeParse(answer)
  if (read.success) return read.data
  throw format > presentFormat
    ? new Refused(200, 'page-older', pageIsOlder)
    : new Refused(200, 'unreadable', 'the answer of the server cannot be read')
}

/** A study as an answer; what reads one is fetched with the first. */
async function askForStudy(...request: Parameters<typeof ask>): Promise<StoredStudy> {
  const { storedStudySchema } = await reach(import('./storedStudy'))
  return askFor(storedStudySchema, ...request)
}

async function ask(method: string, path: string, body?: unknown, keepalive = false) {
  let response: Response
  try {
    const sent = body === undefined ? { headers: {} } : packed(JSON.stringify(body), keepalive)
    const headers = {
      ...sent.headers,
      'x-yperkine-browser': browserId(),
      [formatHeader]: String(presentFormat),
    }
    response = await fetch(`/api${path}`, { method, ...sent, headers })
  } catch (error) {
    throw new Unreachable('the server cannot be reached', null, { cause: error })
  }
  const format = Number(response.headers.get(formatHeader) ?? presentFormat)
  if (response.status === 204) return { answer: null, format }
  const answer: unknown = await response.json().catch(() => null)
  if (response.ok) return { answer, format }
  const read = errorAnswerSchema.safeParse(answer)
  const { status } = response
  if (status === 429 || status >= 500) {
    const known = read.success ? reasons[read.data.error.code] : undefined
    const wait = Number(response.headers.get('retry-after') ?? NaN)
    throw new TryLater(
      known ?? `the server answered ${status}`,
      Number.isFinite(wait) ? wait : null,
    )
  }
  if (!read.success) throw new Refused(status, 'unknown', `the server answered ${status}`)
  const { code, message, details } = read.data.error
  if (format < presentFormat && code.endsWith('-study')) {
    throw new Refused(status, 'server-older', serverIsOlder, details)
  }
  throw new Refused(status, code, message, details)
}

const at = (id: string) => `/studies/${encodeURIComponent(id)}`

export interface ListRequest {
  search?: string
  topic?: string
  example?: 'true' | 'false'
  cursor?: string | null
}

export const api = {
  /** A page of the list, the newest first. */
  list: async ({ search = '', topic = '', example, cursor = null }: ListRequest = {}) => {
    const asked = Object.entries({
      search,
      topic,
      example: example ?? '',
      cursor: cursor ?? '',
    }).filter(([, v]) => v !== '')
    return askFor(listAnswerSchema, 'GET', `/studies?${new URLSearchParams(asked)}`)
  },
  get: async (id: string) => askForStudy('GET', at(id)),
  create: async (study: Study) => askFor(createdAnswerSchema, 'POST', '/studies', { study }),
  /** `keepalive` lets a save outlive the page it was sent from. */
  save: async (id: string, version: number, study: Study, saveId: string, keepalive = false) =>
    askFor(savedAnswerSchema, 'PUT', at(id), { version, study, saveId }, keepalive),
  remove: async (id: string) => {
    await ask('DELETE', at(id))
  },
  /** The origins whose pages may show a study in a frame. */
  frameOrigins: async () => (await askFor(framingAnswerSchema, 'GET', '/framing')).origins,
  restore: async (id: string) => {
    await ask('POST', `${at(id)}/restore`, {})
  },
}

/** A second, two, four … at most ten; spread by a quarter, so that not all come back at once. */
export function delayBefore(attempt: number, error: unknown, random = Math.random): number {
  const asked = error instanceof TryLater ? (error.waitSeconds ?? 0) * 1000 : 0
  const own = Math.min(10_000, 1000 * 2 ** attempt)
  return Math.max(asked, own) * (1 + 0.25 * random())
}

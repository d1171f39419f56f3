import { isNewer, type studyProblems } from '@yperkine/core'
import type { ErrorRequestHandler, RequestHandler } from 'express'
import type { Logger } from 'pino'
import { ConnectionError, DatabaseError } from 'sequelize'

/** An answer that is not the one asked for, in the words of the API. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message)
  }
}

export const notFound = () => new ApiError(404, 'not-found', 'there is no study with this id')
type Problems = ReturnType<typeof studyProblems>

export const badStudy = (problems: Problems) =>
  isNewer(problems)
    ? new ApiError(400, 'newer-study', 'this study was made with a newer version than the server', {
        problems,
      })
    : new ApiError(400, 'bad-study', 'this is not a study that can be kept', { problems })
export const badQuery = (problems: unknown) =>
  new ApiError(400, 'bad-query', 'the list cannot be asked for like this', { problems })
export const badCursor = () => badQuery([{ path: 'cursor', message: 'no page ended there' }])
export const unreadableStudy = (problems: Problems) =>
  isNewer(problems)
    ? new ApiError(
        422,
        'newer-study',
        'this study is kept, and was made with a newer version than the server',
        { problems },
      )
    : new ApiError(422, 'unreadable-study', 'this study is kept, and cannot be read any more', {
        problems,
      })
export const studyChanged = (current: unknown) =>
  new ApiError(409, 'study-changed', 'the study was changed elsewhere in the meantime', { current })

export const unknownRoute: RequestHandler = () => {
  throw new ApiError(404, 'no-such-address', 'nothing answers at this address')
}

/** Errors of express's own body reader, by their type. */
const bodyErrors: Record<string, ApiError> = {
  'entity.parse.failed': new ApiError(400, 'bad-json', 'the body is not readable JSON'),
  'entity.too.large': new ApiError(413, 'too-large', 'a study can be at most 1 MiB'),
  'encoding.unsupported': new ApiError(415, 'bad-encoding', 'the body has an unknown encoding'),
  'charset.unsupported': new ApiError(415, 'bad-encoding', 'the body must be UTF-8'),
  'request.aborted': new ApiError(400, 'aborted', 'the request ended early'),
}
/** Errors of those who read requests and send files, by the status they come with. */
const statusErrors: Record<number, ApiError> = {
  404: new ApiError(404, 'no-such-address', 'nothing answers at this address'),
  412: new ApiError(412, 'precondition-failed', 'this is not the version that was asked for'),
  416: new ApiError(416, 'bad-range', 'there is no such part of the file'),
}

function asApiError(error: unknown): ApiError | null {
  if (error instanceof ApiError) return error
  if (isAway(error)) {
    return new ApiError(503, 'database-away', 'the database does not answer; try again soon')
  }
  if (isFull(error)) {
    return new ApiError(507, 'disk-full', 'the disk of the server is full; nothing was kept')
  }
  if (error instanceof URIError) return new ApiError(400, 'bad-address', 'the address is malformed')
  if (!(error instanceof Error)) return null
  if ('type' in error && typeof error.type === 'string') {
    const known = bodyErrors[error.type]
    if (known) return known
  }
  if (!('status' in error) || typeof error.status !== 'number') return null
  const { status } = error
  if (status < 400 || status >= 500) return null
  // What does not unpack is the sender's fault, whatever the packing is called.
  const unpacking = 'code' in error && /^(Z_|ERR_)/.test(String(error.code))
  if (unpacking) return new ApiError(400, 'bad-encoding', 'the body does not unpack')
  return statusErrors[status] ?? new ApiError(status, 'bad-request', 'the request is malformed')
}

/** The database has no room left: PostgreSQL's 53100. */
export const isFull = (error: unknown): boolean =>
  error instanceof DatabaseError &&
  ((error.parent as { code?: string }).code === '53100' ||
    /No space left on device/.test(error.message))

/** The database does not answer. */
export const isAway = (error: unknown): boolean =>
  error instanceof ConnectionError || isConnectionLoss(error)

/**
 * A database that is shut down under an open connection answers with class 57 or breaks the socket;
 * one that has too many connections, with 53300.
 */
function isConnectionLoss(error: unknown): boolean {
  if (!(error instanceof DatabaseError)) return false
  const { code } = error.parent as { code?: string }
  const broken = /terminated|ECONNRESET|EPIPE|ECONNREFUSED/.test(error.message)
  return broken || (code !== undefined && /^(57P|08|53300)/.test(code))
}

const ofFiles = ['content-type', 'content-length', 'etag', 'last-modified', 'cache-control']

/** The one place where errors become answers. What is not known is logged and never told. */
export const answerErrors =
  (log: Logger): ErrorRequestHandler =>
  (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error)
      return
    }
    const known = asApiError(error)
    if (!known) log.error({ err: error, path: request.path }, 'request failed')
    const { status, code, message, details } =
      known ?? new ApiError(500, 'internal', 'something went wrong on the server')
    // The file it was about is not what is sent.
    for (const name of ofFiles) response.removeHeader(name)
    response
      .status(status)
      .json({ error: { code, message, ...(details === undefined ? {} : { details }) } })
  }

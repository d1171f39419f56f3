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
export const badStudy = (problems: unknown) =>
  new ApiError(400, 'bad-study', 'this is not a study that can be kept', { problems })
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

function asApiError(error: unknown): ApiError | null {
  if (error instanceof ApiError) return error
  if (error instanceof ConnectionError || isConnectionLoss(error)) {
    return new ApiError(503, 'database-away', 'the database does not answer; try again soon')
  }
  if (error instanceof Error && 'type' in error && typeof error.type === 'string') {
    const known = bodyErrors[error.type]
    if (known) return known
  }
  if (error instanceof URIError) return new ApiError(400, 'bad-address', 'the address is malformed')
  return null
}

/** A database that is shut down under an open connection answers with class 57 or breaks the socket. */
function isConnectionLoss(error: unknown): boolean {
  if (!(error instanceof DatabaseError)) return false
  const { code } = error.parent as { code?: string }
  const broken = /terminated|ECONNRESET|EPIPE|ECONNREFUSED/.test(error.message)
  return broken || (code !== undefined && /^(57P|08)/.test(code))
}

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
    response
      .status(status)
      .json({ error: { code, message, ...(details === undefined ? {} : { details }) } })
  }

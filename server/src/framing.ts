import type { RequestHandler } from 'express'

/** A study to be read, or its picture alone: these may stand in pages of others. */
const framedViews = new Set(['read', 'picture'])
const ofOneStudy = /^\/studies\/[^/]+\/?$/

/**
 * Who may show a page of this server in a frame of their own. Nobody, as a rule: in a frame someone
 * can be led to press what they do not see. The two views that change nothing may be framed by the
 * origins that are named.
 */
export function framing(origins: readonly string[]): RequestHandler {
  const shut = ["'none'"]
  const open = origins.length > 0 ? ["'self'", ...origins] : shut
  return (request, response, next) => {
    const { view } = request.query
    const mayBe =
      (request.method === 'GET' || request.method === 'HEAD') &&
      ofOneStudy.test(request.path) &&
      typeof view === 'string' &&
      framedViews.has(view)
    const ancestors = mayBe ? open : shut
    const policy = response.getHeader('content-security-policy')
    const before = typeof policy === 'string' ? `${policy};` : ''
    response.set('content-security-policy', `${before}frame-ancestors ${ancestors.join(' ')}`)
    // The older header knows one origin at most; where it stood beside the policy, it would shut all out.
    if (ancestors === shut) response.set('x-frame-options', 'DENY')
    next()
  }
}

import type { Request, RequestHandler } from 'express'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { z } from 'zod'
import { ApiError } from './errors'

const minute = 60

/** What a request costs: reading one study is one point. */
function costOf({ method, path }: Request): number {
  if (method === 'POST') return 4
  if (method === 'PUT' || method === 'DELETE') return 2
  return path === '/studies' || path === '/studies/' ? 3 : 1
}

const browserSchema = z.uuid()

/** The browser that asks, by the id it gave itself; who gives none counts by address. */
function browserOf(request: Request): string {
  const read = browserSchema.safeParse(request.get('x-yperkine-browser'))
  return read.success ? read.data : `address ${request.ip}`
}

export interface Limits {
  /** Points a minute for one browser. */
  browser: number
  /** Points a minute for one address, behind which a whole school may sit. */
  address: number
}

/**
 * Limits what one browser, and what one address, may cost in a minute. The answer says when to come
 * back.
 */
export function limitCost({ browser, address }: Limits): RequestHandler {
  const byBrowser = new RateLimiterMemory({ points: browser, duration: minute })
  const byAddress = new RateLimiterMemory({ points: address, duration: minute })
  return async (request, response, next) => {
    const cost = costOf(request)
    try {
      await byAddress.consume(request.ip ?? 'unknown', cost)
      await byBrowser.consume(browserOf(request), cost)
    } catch (spent) {
      if (!(spent instanceof RateLimiterRes)) throw spent
      const seconds = Math.max(1, Math.ceil(spent.msBeforeNext / 1000))
      response.set('retry-after', String(seconds))
      throw new ApiError(429, 'too-many', `too many requests; try again in ${seconds} s`)
    }
    next()
  }
}

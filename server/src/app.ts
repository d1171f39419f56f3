import { formatHeader, presentFormat, studyJsonSchema } from '@yperkine/core'
import compression from 'compression'
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express'
import helmet from 'helmet'
import path from 'node:path'
import type { Logger } from 'pino'
import { jsonOnly, ownDoorsOnly } from './doors'
import { answerErrors, unknownRoute } from './errors'
import { framing } from './framing'
import { createHealth } from './health'
import { type Limits, limitCost } from './limits'
import { studyRoutes } from './routes/studies'
import type { Studies } from './studies'

export interface AppParts {
  studies: Studies
  /** Resolves when the database has answered and has taken in a write. */
  probeDatabase: () => Promise<unknown>
  log: Logger
  limits: Limits
  /** Names besides this machine's own under which the server answers. */
  hostNames?: readonly string[]
  /** Origins whose pages may show a study, to be read, in a frame. */
  frameOrigins?: readonly string[]
  /** How many proxies stand in front, or their addresses. */
  trustProxy?: number | string[]
  /** The folder of the built page; without it only the API answers. */
  webRoot?: string
}

/** The whole server as a function of its parts; listening is done elsewhere. */
export function createApp(parts: AppParts): Express {
  const { studies, log, limits, webRoot, hostNames = [], frameOrigins = [], trustProxy = 0 } = parts
  const app = express()
  app.disable('x-powered-by')
  app.set('trust proxy', trustProxy)
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          // KaTeX and CodeMirror set inline styles.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          workerSrc: ["'self'", 'blob:'],
          // Said for each page by itself.
          frameAncestors: null,
          // The page is served over plain http on loopback.
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
      xFrameOptions: false,
    }),
    framing(frameOrigins),
  )
  app.use(logRequests(log))
  app.use(ownDoorsOnly(hostNames))
  const health = createHealth(parts.probeDatabase)
  // Monitors ask often: they are not counted.
  app.get('/api/health', health.alive)
  app.get('/api/ready', health.ready)
  const schema = JSON.stringify(studyJsonSchema())
  app.get('/api/study.schema.json', (_request, response) => {
    response.type('application/schema+json').send(schema)
  })
  app.get('/api/framing', (_request, response) => {
    response.json({ origins: frameOrigins })
  })
  // Only what is asked for is long; a save is answered in a few bytes.
  app.get(/.*/, compression())
  const api = express.Router()
  api.use((_request, response, next) => {
    response.set(formatHeader, String(presentFormat))
    next()
  })
  api.use(limitCost(limits), jsonOnly, express.json({ limit: '1mb' }))
  const noteSuccess: RequestHandler = (_request, response, next) => {
    response.on('finish', () => response.statusCode < 300 && health.note())
    next()
  }
  api.use('/studies', noteSuccess, studyRoutes(studies))
  api.use(unknownRoute)
  app.use('/api', api)

  if (webRoot) servePage(app, webRoot)
  const noteFailure: ErrorRequestHandler = (error: unknown, _request, _response, next) => {
    health.note(error)
    next(error)
  }
  app.use(noteFailure, answerErrors(log))
  return app
}

/** A line a request where someone wants them: method, path and outcome, no addresses, no headers. */
const logRequests =
  (log: Logger): RequestHandler =>
  (request, response, next) => {
    if (log.isLevelEnabled('info')) {
      const began = performance.now()
      const { method, originalUrl } = request
      response.on('finish', () => {
        const milliseconds = Math.round(performance.now() - began)
        log.info({ method, path: originalUrl, status: response.statusCode, milliseconds })
      })
    }
    next()
  }

function servePage(app: Express, webRoot: string) {
  app.use(
    '/assets',
    express.static(path.join(webRoot, 'assets'), { immutable: true, maxAge: '1y', index: false }),
  )
  app.use(express.static(webRoot, { index: false, maxAge: 0 }))
  // Addresses of the page itself all get the page; the router in it finds the view.
  app.get(/^\/(?!assets\/).*/, (_request, response, next) => {
    response.set('cache-control', 'no-cache')
    response.sendFile(path.join(webRoot, 'index.html'), (error?: Error) => error && next(error))
  })
}

import compression from 'compression'
import express, { type Express } from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import path from 'node:path'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import { ApiError, answerErrors, unknownRoute } from './errors'
import { studyRoutes } from './routes/studies'
import type { Studies } from './studies'

export interface AppParts {
  studies: Studies
  /** Resolves while the database answers. */
  pingDatabase: () => Promise<unknown>
  log: Logger
  requestsPerMinute: number
  /** The folder of the built page; without it only the API answers. */
  webRoot?: string
}

/** The whole server as a function of its parts; listening is done elsewhere. */
export function createApp(parts: AppParts): Express {
  const { studies, pingDatabase, log, requestsPerMinute, webRoot } = parts
  const app = express()
  app.disable('x-powered-by')
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
          // The page is served over plain http on loopback.
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  )
  app.use(compression())
  app.use(
    pinoHttp({
      logger: log,
      // No addresses and no headers: a log line is a method, a path and an outcome.
      serializers: {
        req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
          id,
          method,
          url,
        }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
      customLogLevel: (_request, response) => (response.statusCode >= 500 ? 'error' : 'info'),
    }),
  )

  const api = express.Router()
  api.use(
    rateLimit({
      windowMs: 60_000,
      limit: requestsPerMinute,
      standardHeaders: 'draft-7',
      legacyHeaders: false,
      handler: () => {
        throw new ApiError(429, 'too-many', 'too many requests; wait a minute')
      },
    }),
  )
  api.get('/health', async (_request, response) => {
    await pingDatabase()
    response.json({ status: 'ok' })
  })
  // JSON only: other content types are read as no body and fail the schema.
  api.use(express.json({ limit: '1mb' }))
  api.use('/studies', studyRoutes(studies))
  api.use(unknownRoute)
  app.use('/api', api)

  if (webRoot) servePage(app, webRoot)
  app.use(answerErrors(log))
  return app
}

function servePage(app: Express, webRoot: string) {
  app.use(
    '/assets',
    express.static(path.join(webRoot, 'assets'), { immutable: true, maxAge: '1y', index: false }),
  )
  app.use(express.static(webRoot, { index: false, maxAge: 0 }))
  // Addresses of the page itself all get the page; the router in it finds the view.
  app.get(/^\/(?!assets\/).*/, (_request, response) => {
    response.set('cache-control', 'no-cache')
    response.sendFile(path.join(webRoot, 'index.html'))
  })
}

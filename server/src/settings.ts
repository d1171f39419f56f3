import { z } from 'zod'

/**
 * What stands between this server and those who ask: a number of proxies, or their addresses. Never
 * all of them: then anyone could say to come from anywhere.
 */
const proxySchema = z
  .string()
  .refine((text) => !/^(true|yes|on)$/i.test(text), 'give a number of proxies, or their addresses')
  .transform((text): number | string[] =>
    /^\d+$/.test(text) ? Number(text) : text.split(',').map((part) => part.trim()),
  )

const namesSchema = z
  .string()
  .default('')
  .transform((text) => text.split(/[\s,]+/).filter((name) => name !== ''))

/** An origin as a page's address names it; a star stands for the names under a domain, never for all. */
const originPattern = /^https?:\/\/(?:\*\.)?[a-z\d-]+(?:\.[a-z\d-]+)*(?::\d{1,5})?$/i
const originsSchema = namesSchema
  .refine(
    (all) => all.every((one) => originPattern.test(one)),
    'give origins such as https://course.example, with nothing after them',
  )
  .transform((all) => all.map((one) => one.toLowerCase()))

const schema = z.object({
  DATABASE_URL: z.string().min(1, 'DATABASE_URL must name the database'),
  PORT: z.coerce.number().int().min(0).max(65535).default(4620),
  HOST: z.string().default('127.0.0.1'),
  HOST_NAMES: namesSchema,
  FRAME_ORIGINS: originsSchema,
  TRUST_PROXY: proxySchema.default(0),
  LOG_LEVEL: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('warn'),
  REQUESTS_PER_MINUTE: z.coerce.number().int().positive().default(1200),
  ADDRESS_REQUESTS_PER_MINUTE: z.coerce.number().int().positive().default(120_000),
  DEMO_STUDIES: z.enum(['on', 'off']).default('on'),
})

export interface Settings {
  databaseUrl: string
  port: number
  host: string
  /** Names besides this machine's own under which the server answers. */
  hostNames: string[]
  /** Origins whose pages may show a study, to be read, in a frame. */
  frameOrigins: string[]
  trustProxy: number | string[]
  logLevel: string
  /** Points a minute; a read costs one. */
  limits: { browser: number; address: number }
  demoStudies: boolean
}

/** Reads the environment once; throws with the name of each setting that cannot be used. */
export function readSettings(environment: Record<string, string | undefined>): Settings {
  const read = schema.safeParse(environment)
  if (!read.success) {
    const faults = read.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`)
    throw new Error(`settings cannot be used: ${faults.join('; ')}`)
  }
  const { data } = read
  return {
    databaseUrl: data.DATABASE_URL,
    port: data.PORT,
    host: data.HOST,
    hostNames: [data.HOST, ...data.HOST_NAMES],
    frameOrigins: data.FRAME_ORIGINS,
    trustProxy: data.TRUST_PROXY,
    logLevel: data.LOG_LEVEL,
    limits: {
      browser: data.REQUESTS_PER_MINUTE,
      address: Math.max(data.REQUESTS_PER_MINUTE, data.ADDRESS_REQUESTS_PER_MINUTE),
    },
    demoStudies: data.DEMO_STUDIES === 'on',
  }
}

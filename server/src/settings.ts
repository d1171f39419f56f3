import { z } from 'zod'

const schema = z.object({
  DATABASE_URL: z.string().min(1, 'DATABASE_URL must name the database'),
  PORT: z.coerce.number().int().min(0).max(65535).default(4620),
  HOST: z.string().default('127.0.0.1'),
  LOG_LEVEL: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('warn'),
  REQUESTS_PER_MINUTE: z.coerce.number().int().positive().default(1200),
  DEMO_STUDIES: z.enum(['on', 'off']).default('on'),
})

export interface Settings {
  databaseUrl: string
  port: number
  host: string
  logLevel: string
  requestsPerMinute: number
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
    logLevel: data.LOG_LEVEL,
    requestsPerMinute: data.REQUESTS_PER_MINUTE,
    demoStudies: data.DEMO_STUDIES === 'on',
  }
}

import { type Study, studySchema } from '@yperkine/core'
import { z } from 'zod'

const storedSchema = z.object({
  id: z.string(),
  version: z.number(),
  study: studySchema,
  updatedAt: z.string(),
})
export type StoredStudy = z.infer<typeof storedSchema>

const summarySchema = z.object({
  id: z.string(),
  version: z.number(),
  title: z.string(),
  about: z.string(),
  topics: z.array(z.string()),
  updatedAt: z.string(),
  thumbnail: z.object({
    path: z.string(),
    axis: z.number().nullable(),
    width: z.number(),
    height: z.number(),
  }),
})
export type StudySummary = z.infer<typeof summarySchema>

const errorSchema = z.object({
  error: z.object({ code: z.string(), message: z.string(), details: z.unknown().optional() }),
})

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

/** Nobody answered: the server is down or out of reach. */
export class Unreachable extends Error {}

async function ask(method: string, path: string, body?: unknown, keepalive = false) {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      keepalive,
      ...(body === undefined
        ? {}
        : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    })
  } catch (error) {
    throw new Unreachable('the server cannot be reached', { cause: error })
  }
  if (response.status === 204) return null
  const answer: unknown = await response.json().catch(() => null)
  if (response.ok) return answer
  const read = errorSchema.safeParse(answer)
  if (!read.success || response.status === 503) {
    throw new Unreachable(`the server answered ${response.status}`)
  }
  const { code, message, details } = read.data.error
  throw new Refused(response.status, code, message, details)
}

const at = (id: string) => `/studies/${encodeURIComponent(id)}`

export const api = {
  list: async (): Promise<StudySummary[]> =>
    z.object({ studies: z.array(summarySchema) }).parse(await ask('GET', '/studies')).studies,
  get: async (id: string) => storedSchema.parse(await ask('GET', at(id))),
  create: async (study: Study) => storedSchema.parse(await ask('POST', '/studies', { study })),
  /** `keepalive` lets a save outlive the page it was sent from. */
  save: async (id: string, version: number, study: Study, saveId: string, keepalive = false) =>
    storedSchema.parse(await ask('PUT', at(id), { version, study, saveId }, keepalive)),
  remove: async (id: string) => {
    await ask('DELETE', at(id))
  },
  restore: async (id: string) => storedSchema.parse(await ask('POST', `${at(id)}/restore`)),
}

/** The state that won a race, out of a refusal because the study has changed. */
export function currentOf(refusal: Refused): StoredStudy | null {
  const read = z.object({ current: storedSchema }).safeParse(refusal.details)
  return read.success ? read.data.current : null
}

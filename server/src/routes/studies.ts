import { studyProblems, studySchema } from '@yperkine/core'
import { type Request, Router } from 'express'
import { z } from 'zod'
import { badStudy, notFound } from '../errors'
import type { Studies } from '../studies'

const createBody = z.object({ study: studySchema })
const saveBody = z.object({
  version: z.int().min(1),
  study: studySchema,
  saveId: z.string().min(1).max(100),
})
const idSchema = z.uuid()

function idOf(request: Request): string {
  const read = idSchema.safeParse(request.params.id)
  if (!read.success) throw notFound()
  return read.data
}

function bodyOf<T>(schema: z.ZodType<T>, request: Request): T {
  const read = schema.safeParse(request.body)
  if (!read.success) throw badStudy(studyProblems(read.error))
  return read.data
}

export function studyRoutes(studies: Studies): Router {
  const routes = Router()

  routes.get('/', async (_request, response) => {
    response.json({ studies: await studies.list() })
  })

  routes.post('/', async (request, response) => {
    const { study } = bodyOf(createBody, request)
    response.status(201).json(await studies.create(study))
  })

  routes.get('/:id', async (request, response) => {
    response.json(await studies.get(idOf(request)))
  })

  routes.put('/:id', async (request, response) => {
    const id = idOf(request)
    const { version, study, saveId } = bodyOf(saveBody, request)
    response.json(await studies.save(id, version, study, saveId))
  })

  routes.delete('/:id', async (request, response) => {
    await studies.remove(idOf(request))
    response.status(204).end()
  })

  routes.post('/:id/restore', async (request, response) => {
    response.json(await studies.restore(idOf(request)))
  })

  return routes
}

import { createBodySchema, listQuerySchema, saveBodySchema, studyProblems } from '@yperkine/core'
import { type Request, type Response, Router } from 'express'
import { z } from 'zod'
import { badQuery, badStudy, notFound } from '../errors'
import type { Studies } from '../studies'

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

const sendJson = (response: Response, text: string) => {
  response.type('application/json').send(text)
}

export function studyRoutes(studies: Studies): Router {
  const routes = Router()

  routes.get('/', async (request, response) => {
    const read = listQuerySchema.safeParse(request.query)
    if (!read.success) throw badQuery(studyProblems(read.error))
    sendJson(response, await studies.list(read.data))
  })

  routes.post('/', async (request, response) => {
    const { study } = bodyOf(createBodySchema, request)
    response.status(201).json(await studies.create(study))
  })

  routes.get('/:id', async (request, response) => {
    sendJson(response, await studies.get(idOf(request)))
  })

  routes.put('/:id', async (request, response) => {
    const id = idOf(request)
    const { version, study, saveId } = bodyOf(saveBodySchema, request)
    response.json(await studies.save(id, version, study, saveId))
  })

  routes.delete('/:id', async (request, response) => {
    await studies.remove(idOf(request))
    response.status(204).end()
  })

  routes.post('/:id/restore', async (request, response) => {
    sendJson(response, await studies.restore(idOf(request)))
  })

  return routes
}

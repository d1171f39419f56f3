import { z } from 'zod'
import { presentSchema } from './study'
import { presentFormat } from './format'

/**
 * The study file of the present format as a JSON Schema (2020-12), for other programs. What holds
 * between members, such as that names differ, is said by `readStudyFile` alone.
 */
export const studyJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(presentSchema, {
    target: 'draft-2020-12',
    io: 'input',
    unrepresentable: 'any',
    reused: 'ref',
  }),
  title: `Yperkine study, format ${presentFormat}`,
})

import { createHash } from 'node:crypto'
import { studySchema } from '@yperkine/core'
import { z } from 'zod'

/**
 * A name for the present schema. What was checked against it need not be checked again when it is
 * read; what was checked against an older one gets what has come since.
 */
export const schemaMark = createHash('sha256')
  .update(JSON.stringify(z.toJSONSchema(studySchema, { io: 'output', unrepresentable: 'any' })))
  .digest('hex')

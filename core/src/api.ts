import { z } from 'zod'
import { studySchema } from './study/schema'
import { isStorable } from './vocabulary/storable'
import { idSchema, versionSchema } from './listing'

/** What the server and the page say to each other. Dates are ISO 8601 texts. */
export * from './listing'

/** A study as the server keeps it. */
export const storedStudySchema = z.object({
  id: idSchema,
  version: versionSchema,
  study: studySchema,
  updatedAt: z.string(),
})
export type StoredStudy = z.infer<typeof storedStudySchema>

export const createBodySchema = z.object({ study: studySchema })
export const saveBodySchema = z.object({
  /** The version the work goes on from. */
  version: versionSchema,
  study: studySchema,
  /** By which the server knows a save that is sent again. */
  saveId: z
    .string()
    .min(1)
    .max(100)
    .refine(isStorable, 'a save id holds characters that are no characters'),
})

/** What goes with a refusal because the study was changed meanwhile. */
export const changedDetailsSchema = z.object({ current: storedStudySchema })

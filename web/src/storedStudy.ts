import { changedDetailsSchema, type StoredStudy, storedStudySchema } from '@yperkine/core'
import type { Refused } from './api'

// What is read with the schema of a study, which the list of studies does without.

export { storedStudySchema }

/** The state that won a race, out of a refusal because the study has changed. */
export function currentOf(refusal: Refused): StoredStudy | null {
  const read = changedDetailsSchema.safeParse(refusal.details)
  return read.success ? read.data.current : null
}

import { type Study, studySchema } from '@yperkine/core'
import { del, get, set } from 'idb-keyval'
import { z } from 'zod'
import { api, type StoredStudy, Unreachable } from '../api'

const draftSchema = z.object({
  /** The server's version that the work goes on from. */
  version: z.number(),
  study: studySchema,
  /** A state that was sent and whose answer is not known. */
  sent: studySchema.nullable(),
})
export type Draft = z.infer<typeof draftSchema>

const keyOf = (id: string) => `draft ${id}`

/** Work the server does not have yet is also kept in the browser, where a reload finds it. */
export const drafts = {
  keep: (id: string, draft: Draft) => set(keyOf(id), draft),
  drop: (id: string) => del(keyOf(id)),
  /** A draft that cannot be read any more is as good as none. */
  async find(id: string): Promise<Draft | null> {
    const read = draftSchema.safeParse(await get(keyOf(id)))
    return read.success ? read.data : null
  },
}

/** A study as it is opened: what the server has, and what this browser has beyond it. */
export interface Opening {
  stored: StoredStudy
  /** The state to show: the server's, or the unsaved work on it. */
  study: Study
  /** Set where the server has gone on without the unsaved work. */
  theirs: StoredStudy | null
}

const same = (a: Study, b: Study) => JSON.stringify(a) === JSON.stringify(b)

/** Puts together what the server has with unsaved work from an earlier visit. */
export function reconcile(stored: StoredStudy, draft: Draft | null): Opening {
  if (!draft || same(draft.study, stored.study))
    return { stored, study: stored.study, theirs: null }
  const goesOn = draft.version === stored.version
  // Our own save got through and only its answer was lost.
  const isOurs = draft.sent !== null && same(draft.sent, stored.study)
  if (goesOn || isOurs) return { stored, study: draft.study, theirs: null }
  return { stored, study: draft.study, theirs: stored }
}

export async function openStudy(id: string): Promise<Opening> {
  const draft = await drafts.find(id)
  try {
    return reconcile(await api.get(id), draft)
  } catch (error) {
    if (!(error instanceof Unreachable) || !draft) throw error
    // Without the server the work goes on from what this browser kept.
    const stored = { id, version: draft.version, study: draft.study, updatedAt: '' }
    return {
      stored: { ...stored, study: draft.sent ?? draft.study },
      study: draft.study,
      theirs: null,
    }
  }
}

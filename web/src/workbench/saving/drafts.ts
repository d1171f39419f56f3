import { type StoredStudy, type Study, studySchema } from '@yperkine/core'
import { z } from 'zod'
import type { Storage } from './storage'

const draftSchema = z.object({
  /** The server's version that the work goes on from. */
  version: z.number(),
  study: studySchema,
  /** A save that has left and whose answer is not known. */
  flight: z.object({ study: studySchema, saveId: z.string() }).nullable(),
})
export type Draft = z.infer<typeof draftSchema>

/** What is kept and cannot be read any more, as it was found. */
export interface Unreadable {
  key: string
  text: string
}

export interface Found {
  /** Work the server may not have, and where it is kept; null where there is none. */
  draft: Draft | null
  unreadable: Unreadable[]
}

/** As drafts were kept before each tab had its own. */
const olderDraftSchema = z
  .object({ version: z.number(), study: studySchema, sent: studySchema.nullable() })
  .transform(({ version, study }): Draft => ({ version, study, flight: null }))

const prefixOf = (id: string) => `draft ${id} `
const keyOf = (id: string, tab: string) => prefixOf(id) + tab
const tabKeyOf = (id: string) => `draft ${id}`

/**
 * Work the server does not have yet is also kept in the browser, where a reload finds it. Each tab
 * keeps its own: what one has saved says nothing about what another has not.
 */
export function createDrafts(
  storage: Storage,
  tab: string,
  isOpen: (tab: string) => Promise<boolean>,
) {
  const read = (value: unknown) => z.union([draftSchema, olderDraftSchema]).safeParse(value)
  return {
    async keep(id: string, draft: Draft) {
      await storage.keep(keyOf(id, tab), draft)
      // What the tab kept while its page was hidden is older than this.
      storage.dropInTab(tabKeyOf(id))
    },
    /** At once, while the page goes. */
    keepNow: (id: string, draft: Draft) => storage.keepInTab(tabKeyOf(id), draft),
    async drop(id: string) {
      storage.dropInTab(tabKeyOf(id))
      await storage.drop(keyOf(id, tab))
    },
    /** Throws away what cannot be read, when someone has asked for it. */
    dropUnreadable: async ({ key }: Unreadable) => {
      storage.dropInTab(key)
      await storage.drop(key)
    },
    /**
     * This tab's own draft, or one that a tab that is no longer open has left behind, which becomes
     * this tab's. What an open tab works on is its own affair.
     */
    async find(id: string): Promise<Found> {
      const unreadable: Unreadable[] = []
      const readable = (key: string, value: unknown): Draft | null => {
        if (value === undefined || value === null) return null
        const found = read(value)
        if (found.success) return found.data
        unreadable.push({ key, text: JSON.stringify(value, null, 2) })
        return null
      }
      const now = readable(tabKeyOf(id), storage.findInTab(tabKeyOf(id)))
      const kept = await storage.findAll(prefixOf(id))
      const mine = kept.find(([key]) => key === keyOf(id, tab))
      let draft = now ?? (mine ? readable(...mine) : null)
      const older = await storage.find(tabKeyOf(id))
      const others: [string, unknown][] =
        older === undefined ? kept : [...kept, [tabKeyOf(id), older]]
      for (const [key, value] of others) {
        const tabOfKey = key.startsWith(prefixOf(id)) ? key.slice(prefixOf(id).length) : null
        if (tabOfKey === tab || (tabOfKey !== null && (await isOpen(tabOfKey)))) continue
        const left = readable(key, value)
        if (!left || draft) continue
        draft = left
        await storage.keep(keyOf(id, tab), left)
        await storage.drop(key)
      }
      return { draft, unreadable }
    },
  }
}
export type Drafts = ReturnType<typeof createDrafts>

/** A study as it is opened: what the server has, and what this browser has beyond it. */
export interface Opening {
  stored: StoredStudy
  /** The state to show: the server's, or the unsaved work on it. */
  study: Study
  /** Set where the server has gone on without the unsaved work. */
  theirs: StoredStudy | null
  /** The study was deleted elsewhere; what is shown is this browser's work on it. */
  gone: boolean
  unreadable: Unreadable[]
}

const same = (a: Study, b: Study) => JSON.stringify(a) === JSON.stringify(b)

/** Puts together what the server has with unsaved work from an earlier visit. */
export function reconcile(stored: StoredStudy, draft: Draft | null): Omit<Opening, 'unreadable'> {
  const usual = { stored, study: stored.study, theirs: null, gone: false }
  if (!draft || same(draft.study, stored.study)) return usual
  const goesOn = draft.version === stored.version
  // Our own save got through and only its answer was lost.
  const isOurs = draft.flight !== null && same(draft.flight.study, stored.study)
  if (goesOn || isOurs) return { ...usual, study: draft.study }
  return { ...usual, study: draft.study, theirs: stored }
}

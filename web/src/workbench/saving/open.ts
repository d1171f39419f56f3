import { api, Refused, Unreachable } from '../../api'
import { currentOf } from '../../storedStudy'
import { type Draft, type Opening, reconcile } from './drafts'
import { saving } from './saving'

/** Last saves of studies that were just left, by id: opening one again waits for its own. */
const leaving = new Map<string, Promise<void>>()
/** A save that takes longer than this goes on by itself; the draft knows its id. */
const patience = 3000

export function leave(id: string, flushed: Promise<void>) {
  const done = flushed.finally(() => {
    if (leaving.get(id) === done) leaving.delete(id)
  })
  leaving.set(id, done)
}

const wait = (milliseconds: number) =>
  new Promise<void>((resolve) => setTimeout(resolve, milliseconds))

/**
 * Opens a study with what this browser has beyond what the server has. A save that had left when the
 * page went is sent once more under its own id: whether or not it has arrived, it counts once.
 */
export async function openStudy(id: string): Promise<Opening> {
  await Promise.race([leaving.get(id) ?? Promise.resolve(), wait(patience)])
  const { drafts } = await saving()
  const { draft, unreadable } = await drafts.find(id)
  return { ...(await openWith(id, draft)), unreadable }
}

async function openWith(id: string, draft: Draft | null): Promise<Omit<Opening, 'unreadable'>> {
  try {
    const landed = draft?.flight ? await land(id, draft) : draft
    return reconcile(await api.get(id), landed)
  } catch (error) {
    if (!draft) throw error
    const kept = { id, version: draft.version, updatedAt: '' }
    if (error instanceof Refused && error.status === 404) {
      const stored = { ...kept, study: draft.study }
      return { stored, study: draft.study, theirs: null, gone: true }
    }
    if (!(error instanceof Unreachable)) throw error
    // Without the server the work goes on from what this browser kept.
    const stored = { ...kept, study: draft.flight?.study ?? draft.study }
    return { stored, study: draft.study, theirs: null, gone: false }
  }
}

/** The draft after its save has arrived for certain; one that lost a race stays as it is. */
async function land(id: string, draft: Draft): Promise<Draft> {
  const { version, flight } = draft
  if (!flight) return draft
  try {
    const saved = await api.save(id, version, flight.study, flight.saveId)
    return { version: saved.version, study: draft.study, flight: null }
  } catch (error) {
    if (error instanceof Refused && currentOf(error)) return { ...draft, flight: null }
    throw error
  }
}

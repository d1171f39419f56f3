import { createDrafts, type Drafts } from './drafts'
import { createStorage, type Storage } from './storage'
import { isOpen, tabName } from './tab'

let started: Promise<{ storage: Storage; drafts: Drafts }> | null = null
const listeners = new Set<() => void>()

/** What this browser keeps, made once for the page. */
export const saving = () =>
  (started ??= tabName().then((tab) => {
    const storage = createStorage(() => listeners.forEach((tell) => tell()))
    return { storage, drafts: createDrafts(storage, tab, isOpen) }
  }))

/** Tells when this browser turns out to keep nothing; returns how to stop listening. */
export function onStorageRefused(tell: () => void): () => void {
  listeners.add(tell)
  void saving().then(({ storage }) => storage.refused !== null && tell())
  return () => listeners.delete(tell)
}

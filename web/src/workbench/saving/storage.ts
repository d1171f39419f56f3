import { del, entries, get, set } from 'idb-keyval'

/**
 * What this browser keeps for the application: a store that outlives the tab, and one that belongs
 * to the tab and can be written while its page goes. Either may be refused, blocked or full; then
 * `refused` is told why, once, and work goes on without.
 */
export interface Storage {
  /** Set once something could not be kept. */
  readonly refused: string | null
  keep(key: string, value: unknown): Promise<void>
  drop(key: string): Promise<void>
  find(key: string): Promise<unknown>
  /** Everything whose key begins with a text. */
  findAll(prefix: string): Promise<[key: string, value: unknown][]>
  /** The same within this tab, at once; null where there is nothing. */
  keepInTab(key: string, value: unknown): void
  dropInTab(key: string): void
  findInTab(key: string): unknown
}

const reasonOf = (error: unknown) => (error instanceof Error ? error.message : String(error))

export function createStorage(onRefused: (reason: string) => void = () => undefined): Storage {
  let refused: string | null = null
  const note = (error: unknown) => {
    if (refused !== null) return
    refused = reasonOf(error)
    onRefused(refused)
  }
  /** Where keeping fails the answer is the one that an empty store gives. */
  const tried = async <T>(work: () => Promise<T>, otherwise: T): Promise<T> => {
    try {
      return await work()
    } catch (error) {
      note(error)
      return otherwise
    }
  }
  const triedInTab = <T>(work: () => T, otherwise: T): T => {
    try {
      return work()
    } catch (error) {
      note(error)
      return otherwise
    }
  }
  return {
    get refused() {
      return refused
    },
    keep: (key, value) => tried(() => set(key, value), undefined),
    drop: (key) => tried(() => del(key), undefined),
    find: (key) => tried<unknown>(() => get(key), undefined),
    findAll: (prefix) =>
      tried(async () => {
        const all = await entries<string, unknown>()
        return all.filter(([key]) => key.startsWith(prefix))
      }, []),
    keepInTab: (key, value) =>
      triedInTab(() => sessionStorage.setItem(key, JSON.stringify(value)), undefined),
    dropInTab: (key) => triedInTab(() => sessionStorage.removeItem(key), undefined),
    findInTab: (key) =>
      triedInTab<unknown>(() => {
        const text = sessionStorage.getItem(key)
        return text === null ? null : JSON.parse(text)
      }, null),
  }
}

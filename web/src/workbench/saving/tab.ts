/**
 * A name for this tab that survives a reload, and a way to know which tabs are open: each holds a
 * lock of its name for as long as it lives. A duplicated tab finds its name taken and gets another.
 */
const key = 'tab'
const lockOf = (name: string) => `yperkine tab ${name}`

let own: Promise<string> | null = null

export const tabName = (): Promise<string> => (own ??= claim())

async function claim(): Promise<string> {
  let name: string | null = null
  try {
    name = sessionStorage.getItem(key)
  } catch {
    // Storage is refused: the name lasts as long as the page.
  }
  const mine = name !== null && (await hold(name)) ? name : await fresh()
  try {
    sessionStorage.setItem(key, mine)
  } catch {
    return mine
  }
  return mine
}

async function fresh(): Promise<string> {
  const name = crypto.randomUUID()
  await hold(name)
  return name
}

/** Takes the lock of a name until the page goes; false where another tab has it. */
function hold(name: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(true)
  return new Promise((resolve) => {
    navigator.locks
      .request(lockOf(name), { ifAvailable: true }, (lock) => {
        resolve(lock !== null)
        return lock ? new Promise(() => undefined) : undefined
      })
      .catch(() => resolve(true))
  })
}

/** Whether a tab of that name is open; where nobody can tell, it is taken to be. */
export async function isOpen(name: string): Promise<boolean> {
  if (!navigator.locks) return true
  const { held = [] } = await navigator.locks.query()
  return held.some((lock) => lock.name === lockOf(name))
}

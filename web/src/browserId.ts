const key = 'browser'
let id: string | null = null

/** In someone's page nothing is kept: the name lasts as long as the page. */
export function keepNothing() {
  id ??= crypto.randomUUID()
}

/** A name for this browser, by which the server tells many behind one address apart; it says no more. */
export function browserId(): string {
  id ??= kept() ?? crypto.randomUUID()
  return id
}

/** The name of an earlier visit. A browser that keeps nothing has a new one at each. */
function kept(): string | null {
  try {
    const known = localStorage.getItem(key)
    if (known) return known
    const made = crypto.randomUUID()
    localStorage.setItem(key, made)
    return made
  } catch {
    // Storage is refused or full: the name lasts as long as the page.
    return null
  }
}

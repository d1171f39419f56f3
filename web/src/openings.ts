const key = 'yperkine.opened'
/** So many are remembered; older ones count as not opened. */
const most = 300

type Openings = Record<string, string>

function read(): Openings {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(key) ?? '{}')
    return typeof found === 'object' && found !== null ? (found as Openings) : {}
  } catch {
    // A browser that keeps nothing, or something else under this name: the list has its usual order.
    return {}
  }
}

/** Remembers that a study has been opened here, now. */
export function noteOpened(id: string) {
  const all = Object.entries({ ...read(), [id]: new Date().toISOString() })
  const newest = all.sort(([, a], [, b]) => b.localeCompare(a)).slice(0, most)
  try {
    localStorage.setItem(key, JSON.stringify(Object.fromEntries(newest)))
  } catch {
    // Without a place to remember it the study opens all the same.
  }
}

/** Studies by when they were last opened or changed, the latest first. */
export function byLastOpened<S extends { id: string; updatedAt: string }>(
  studies: readonly S[],
): S[] {
  const opened = read()
  const at = ({ id, updatedAt }: S) => {
    const own = opened[id]
    return typeof own === 'string' && own > updatedAt ? own : updatedAt
  }
  return [...studies].sort((a, b) => at(b).localeCompare(at(a)))
}

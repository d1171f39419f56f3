/** Remembers what was made from the same ingredients: unchanged parts keep their identity. */
export function createKeeper() {
  let kept = new Map<string, { from: readonly unknown[]; value: unknown }>()
  let next: typeof kept = new Map()
  return {
    keep<T>(key: string, from: readonly unknown[], make: () => T): T {
      const known = kept.get(key)
      const entry =
        known &&
        known.from.length === from.length &&
        known.from.every((v, i) => Object.is(v, from[i]))
          ? known
          : { from, value: make() }
      next.set(key, entry)
      return entry.value as T
    },
    /** What was made before from just these ingredients, if anything. */
    known<T>(key: string, from: readonly unknown[]): T | undefined {
      const known = kept.get(key)
      const same = known?.from.every((v, i) => Object.is(v, from[i])) === true
      if (!known || !same) return undefined
      next.set(key, known)
      return known.value as T
    },
    /** Forgets what the finished picture no longer has. */
    turn() {
      kept = next
      next = new Map()
    },
  }
}

export type Keeper = ReturnType<typeof createKeeper>

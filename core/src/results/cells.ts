/** Something worked out once and kept while what it read stays the same. */
export interface Cell {
  value: unknown
  reads: Map<string, unknown>
}

/** The cells of one working out, built on those of the one before. */
export class Cells {
  private readonly next = new Map<string, Cell>()
  private readonly running: Map<string, unknown>[] = []

  /** `current` says what a key stands for now. */
  constructor(
    private readonly kept: ReadonlyMap<string, Cell>,
    private readonly current: (key: string) => unknown,
  ) {}

  /** What a key stands for; the cell at work remembers that it has read it. */
  readonly read = <T>(key: string): T => {
    const value = this.current(key)
    this.running.at(-1)?.set(key, value)
    return value as T
  }

  /**
   * The value of a cell: the kept one if nothing it read has changed, else worked out. A value
   * that is the same as the kept one gives way to it, so that what reads it may rest.
   */
  cell<T>(key: string, work: () => T, same?: (a: T, b: T) => boolean): T {
    const ready = this.next.get(key)
    if (ready) return ready.value as T
    const kept = this.kept.get(key)
    const unchanged = kept && [...kept.reads].every(([k, v]) => Object.is(this.current(k), v))
    if (unchanged) {
      this.next.set(key, kept)
      return kept.value as T
    }
    const reads = new Map<string, unknown>()
    this.running.push(reads)
    let value = work()
    this.running.pop()
    if (kept && same?.(kept.value as T, value)) value = kept.value as T
    this.next.set(key, { value, reads })
    return value
  }

  /** What this working out leaves to the next one. */
  all(): Map<string, Cell> {
    return this.next
  }
}

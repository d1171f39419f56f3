import type { RealFunction } from '../evaluate/compile'

/** One place a search has looked at. */
export interface Probe {
  x: number
  value: number
}

export interface Found extends Probe {
  iterations: number
  evaluations: number
  /** Every place that was looked at, in order. */
  log: Probe[]
  /** Whether the search came to rest by itself, and not at its limit of looks. */
  settled: boolean
}

/** A search that yields each probe as it is made and returns what it has found. */
export type Walk = Generator<Probe, Found, void>

/** Notes every look; a value that is missing counts as higher than all others. */
export function createLook(f: Pick<RealFunction, 'value'>) {
  const log: Probe[] = []
  const look = (x: number): Probe => {
    const probe = { x, value: f.value(x) }
    log.push(probe)
    return probe
  }
  return { log, look }
}

/** Whether one probe lies lower than another; a missing value lies above all. */
export const isLower = (p: Probe, q: Probe): boolean =>
  Number.isNaN(q.value) ? !Number.isNaN(p.value) : p.value < q.value

/** Takes all steps of a search at once. */
export function finishWalk(walk: Walk): Found {
  for (;;) {
    const step = walk.next()
    if (step.done) return step.value
  }
}

/** How far apart two places may be for a search to be done. */
export const restWidth = (x: number) => 1e-8 * Math.max(1, Math.abs(x))

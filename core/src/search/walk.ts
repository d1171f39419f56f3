import type { RealFunction } from '../evaluate/compile'

/** One place a search has looked at. */
export interface Probe {
  x: number
  value: number
  /** The place it was tried from; null for those a search begins with. */
  from: number | null
  /** Whether the search went on with it; false where it was refused. */
  accepted: boolean
}

/**
 * Why a search ended: its places lie within its tolerance, the function is level there, it has made the
 * most looks it may, it came to where there is no value, or it ran away without an end.
 */
export type Stop = 'settled' | 'level' | 'most' | 'missing' | 'away'

export interface Found {
  x: number
  value: number
  iterations: number
  evaluations: number
  /** Every place that was looked at, in order. */
  log: Probe[]
  stopped: Stop
  /** Whether the search came to rest by itself, and not at its limit of looks. */
  settled: boolean
}

/** A search that yields each probe as it is made and returns what it has found. */
export type Walk = Generator<Probe, Found, void>

/** What every search takes: how near together its places are in the end, and how often it may look. */
export interface Limits {
  /** As a share of the size of the place, at least of 1; 1e-8 where it is not said. */
  tolerance?: number
  most?: number
}

export const usualTolerance = 1e-8

/** Notes every look; a value that is missing counts as higher than all others. */
export function createLook(f: Pick<RealFunction, 'value'>) {
  const log: Probe[] = []
  const look = (x: number, from: number | null = null): Probe => {
    const probe = { x, value: f.value(x), from, accepted: false }
    log.push(probe)
    return probe
  }
  return { log, look }
}

/** The probe itself, as one that the search goes on with; a place without a value is never kept as one. */
export function accept(probe: Probe): Probe {
  probe.accepted = !Number.isNaN(probe.value)
  return probe
}

type Height = Pick<Probe, 'value'>
/** Whether one probe lies lower than another; a missing value lies above all. */
export const isLower = (p: Height, q: Height): boolean =>
  Number.isNaN(q.value) ? !Number.isNaN(p.value) : p.value < q.value

/** What a search has come to. */
export const foundAt = (
  { x, value }: Pick<Probe, 'x' | 'value'>,
  log: Probe[],
  iterations: number,
  stopped: Stop,
): Found => ({
  ...{ x, value, iterations, evaluations: log.length, log, stopped },
  settled: stopped === 'settled' || stopped === 'level',
})

/** Takes all steps of a search at once. */
export function finishWalk(walk: Walk): Found {
  for (;;) {
    const step = walk.next()
    if (step.done) return step.value
  }
}

/** How far apart two places may be for a search to be done. */
export const restWidth = (x: number, tolerance = usualTolerance) =>
  tolerance * Math.max(1, Math.abs(x))

/** A search that is so many times further from its start than it was wide at first has run away. */
const farAway = 1e9
export const isAway = (x: number, start: number) =>
  Math.abs(x - start) > farAway * Math.max(1, Math.abs(start))

import type { RealFunction } from '../evaluate/compile'
import { goldenWalk } from './golden'
import {
  accept,
  createLook,
  finishWalk,
  foundAt,
  isLower,
  type Limits,
  type Probe,
  type Walk,
} from './walk'

export interface PopulationOptions extends Limits {
  from: number
  to: number
  /** The same seed gives the same walk. */
  seed?: number
  /** How many members it has; 4 at the least, 32 where it is not said. */
  size?: number
  /** How many generations it lives at the most; 120 where it is not said. */
  generations?: number
}

/** Small, fast and repeatable numbers in [0, 1) (T. Ettinger's mulberry32, from memory). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** How far a member is thrown by the difference of two others. */
const throwFactor = 0.7

/**
 * Differential evolution (R. Storn, K. Price, Journal of Global Optimization 11, 1997, from memory)
 * for the lowest place of f on [from, to]: a population spread over the span whose members try
 * places given by differences of others, then golden section about the best of them. It finds the
 * lowest of several valleys and pays with many looks; a valley narrower than a few hundredths of the
 * span can still be missed. Places without a value are never kept.
 */
export function* populationWalk(
  f: Pick<RealFunction, 'value'>,
  {
    from,
    to,
    seed = 1,
    size: members = 32,
    generations: longest = 120,
    ...limits
  }: PopulationOptions,
): Walk {
  if (!Number.isFinite(from) || !Number.isFinite(to) || from === to) {
    throw new RangeError(`a population needs two different finite ends: ${from} to ${to}`)
  }
  if (!Number.isInteger(members) || members < 4) {
    throw new RangeError(`a population has 4 members or more: ${members}`)
  }
  const { tolerance = 1e-6, most = 20_000 } = limits
  const [low, high] = from < to ? [from, to] : [to, from]
  const random = seeded(seed)
  const { log, look } = createLook(f)
  const population: Probe[] = []
  // One in each of equal parts, so that no part of the span is left out.
  for (let i = 0; i < members; i++) {
    const probe = accept(look(low + ((high - low) * (i + random())) / members))
    population.push(probe)
    yield probe
  }
  const pick = () => population[Math.floor(random() * members)]!
  let generations = 0
  let isClose = false
  for (; generations < longest && log.length < most; generations++) {
    for (let i = 0; i < members && log.length < most; i++) {
      const [a, b, c] = [pick(), pick(), pick()]
      const tried = a.x + throwFactor * (b.x - c.x)
      const x = tried < low || tried > high ? low + random() * (high - low) : tried
      const probe = look(x, population[i]!.x)
      yield probe
      if (!isLower(population[i]!, probe)) population[i] = accept(probe)
    }
    const xs = population.map((p) => p.x)
    isClose = Math.max(...xs) - Math.min(...xs) < tolerance * (high - low)
    if (isClose) break
  }
  const lowest = () => log.reduce((best, probe) => (isLower(probe, best) ? probe : best))
  const best = lowest()
  if (Number.isNaN(best.value)) return foundAt(best, log, generations, 'missing')
  // As wide as the gap to the nearest places around the best that were looked at.
  const others = log.map((p) => Math.abs(p.x - best.x)).filter((d) => d > 0)
  others.sort((a, b) => a - b)
  const reach = Math.max(others[3] ?? 0, 1e-6 * (high - low))
  const refined = finishWalk(
    goldenWalk(f, Math.max(low, best.x - reach), Math.min(high, best.x + reach)),
  )
  for (const probe of refined.log) {
    log.push(probe)
    yield probe
  }
  for (const end of [low, high]) yield look(end, best.x)
  const final = accept(lowest())
  const isLevel = log.every(({ value }) => value === final.value)
  return foundAt(final, log, generations, isLevel ? 'level' : isClose ? 'settled' : 'most')
}

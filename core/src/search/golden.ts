import type { RealFunction } from '../evaluate/compile'
import {
  accept,
  createLook,
  foundAt,
  isLower,
  type Limits,
  restWidth,
  type Stop,
  type Walk,
} from './walk'

/** The share of the span that is kept at each step. */
const share = (Math.sqrt(5) - 1) / 2

/**
 * Golden section search (J. Kiefer, Proceedings of the AMS 4, 1953, from memory) for the lowest
 * place of f on [from, to]: right where f first falls and then rises, one of the valleys elsewhere.
 * Accuracy of the place about 1e-8, as values allow. A probe is accepted where the span is next drawn in
 * about it. Throws RangeError for ends that are no two different numbers.
 */
export function* goldenWalk(
  f: Pick<RealFunction, 'value'>,
  from: number,
  to: number,
  { tolerance, most = 300 }: Limits = {},
): Walk {
  if (!Number.isFinite(from) || !Number.isFinite(to) || from === to) {
    throw new RangeError(`golden section needs two different finite ends: ${from} to ${to}`)
  }
  const { log, look } = createLook(f)
  let [a, b] = from < to ? [from, to] : [to, from]
  let p = look(b - share * (b - a))
  yield p
  let q = look(a + share * (b - a), p.x)
  yield q
  let iterations = 0
  let stopped: Stop = 'settled'
  while (b - a > restWidth(a, tolerance)) {
    if (log.length >= most) {
      stopped = 'most'
      break
    }
    iterations += 1
    if (isLower(p, q)) {
      accept(p)
      b = q.x
      q = p
      p = look(b - share * (b - a), q.x)
      yield p
    } else {
      accept(q)
      a = p.x
      p = q
      q = look(a + share * (b - a), p.x)
      yield q
    }
  }
  // The lowest may lie at an end, which the search closes in on and never touches.
  for (const end of [from, to]) {
    if (Math.abs(end - p.x) > 1e-6 * Math.max(1, Math.abs(to - from))) continue
    yield look(end, p.x)
  }
  const best = accept(log.reduce((low, probe) => (isLower(probe, low) ? probe : low)))
  if (Number.isNaN(best.value)) return foundAt(best, log, iterations, 'missing')
  const isLevel = stopped === 'settled' && log.every(({ value }) => value === best.value)
  return foundAt(best, log, iterations, isLevel ? 'level' : stopped)
}

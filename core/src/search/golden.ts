import type { RealFunction } from '../evaluate/compile'
import { createLook, isLower, restWidth, type Walk } from './walk'

/** The share of the span that is kept at each step. */
const share = (Math.sqrt(5) - 1) / 2
const mostLooks = 300

/**
 * Golden section search (J. Kiefer, Proceedings of the AMS 4, 1953, from memory) for the lowest
 * place of f on [from, to]: right where f first falls and then rises, one of the valleys elsewhere.
 * Accuracy of the place about 1e-8, as values allow.
 */
export function* goldenWalk(f: Pick<RealFunction, 'value'>, from: number, to: number): Walk {
  if (!Number.isFinite(from) || !Number.isFinite(to) || from === to) {
    throw new RangeError(`golden section needs two different finite ends: ${from} to ${to}`)
  }
  const { log, look } = createLook(f)
  let [a, b] = from < to ? [from, to] : [to, from]
  let p = look(b - share * (b - a))
  yield p
  let q = look(a + share * (b - a))
  yield q
  let iterations = 0
  while (b - a > restWidth(a) && log.length < mostLooks) {
    iterations += 1
    if (isLower(p, q)) {
      b = q.x
      q = p
      p = look(b - share * (b - a))
      yield p
    } else {
      a = p.x
      p = q
      q = look(a + share * (b - a))
      yield q
    }
  }
  // The lowest may lie at an end, which the search closes in on and never touches.
  for (const end of [from, to]) {
    if (Math.abs(end - p.x) > 1e-6 * Math.max(1, Math.abs(to - from))) continue
    yield look(end)
  }
  const best = log.reduce((low, probe) => (isLower(probe, low) ? probe : low))
  const settled = log.length < mostLooks
  return { ...best, iterations, evaluations: log.length, log, settled }
}

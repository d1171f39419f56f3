import type { RealFunction } from '../evaluate/compile'
import { createLook, isLower, type Probe, restWidth, type Walk } from './walk'

const mostLooks = 500

/**
 * The simplex search of J. A. Nelder and R. Mead (Computer Journal 7, 1965, from memory) along one
 * axis: two places, the worse of which is reflected in the better one, thrown twice as far where
 * that is better still, or drawn in. It finds the valley downhill from its start, and a long first
 * step can jump over a narrow one. Accuracy of the place about 1e-8, as values allow.
 */
export function* simplexWalk(
  f: Pick<RealFunction, 'value'>,
  start: number,
  step = 0.1 * Math.max(1, Math.abs(start)),
): Walk {
  if (!Number.isFinite(start)) throw new RangeError(`a search starts at a number: ${start}`)
  if (!Number.isFinite(step) || step === 0) {
    throw new RangeError(`a first step is a number other than 0: ${step}`)
  }
  const { log, look } = createLook(f)
  const probe = function* (x: number): Generator<Probe, Probe, void> {
    const seen = look(x)
    yield seen
    return seen
  }
  let best = yield* probe(start)
  let worst = yield* probe(start + step)
  let iterations = 0
  const order = () => {
    if (isLower(worst, best)) [best, worst] = [worst, best]
  }
  order()
  while (Math.abs(worst.x - best.x) > restWidth(best.x) && log.length < mostLooks) {
    iterations += 1
    const away = best.x - worst.x
    const reflected = yield* probe(best.x + away)
    if (isLower(reflected, best)) {
      const thrown = yield* probe(best.x + 2 * away)
      worst = best
      best = isLower(thrown, reflected) ? thrown : reflected
      continue
    }
    const outside = isLower(reflected, worst)
    const drawn = yield* probe(outside ? best.x + away / 2 : best.x - away / 2)
    worst = drawn
    order()
  }
  const settled = log.length < mostLooks
  return { ...best, iterations, evaluations: log.length, log, settled }
}

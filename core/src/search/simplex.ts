import type { RealFunction } from '../evaluate/compile'
import {
  accept,
  createLook,
  foundAt,
  isAway,
  isLower,
  type Limits,
  type Probe,
  restWidth,
  type Stop,
  type Walk,
} from './walk'

/**
 * The simplex search of J. A. Nelder and R. Mead (Computer Journal 7, 1965, from memory) along one
 * axis: two places, the worse of which is reflected in the better one, thrown twice as far where
 * that is better still, or drawn in. It finds the valley downhill from its start, and a long first
 * step can jump over a narrow one. Accuracy of the place about 1e-8, as values allow. Throws RangeError
 * for a start that is no number and a first step of 0.
 */
export function* simplexWalk(
  f: Pick<RealFunction, 'value'>,
  start: number,
  step = 0.1 * Math.max(1, Math.abs(start)),
  { tolerance, most = 500 }: Limits = {},
): Walk {
  if (!Number.isFinite(start)) throw new RangeError(`a search starts at a number: ${start}`)
  if (!Number.isFinite(step) || step === 0) {
    throw new RangeError(`a first step is a number other than 0: ${step}`)
  }
  const { log, look } = createLook(f)
  const probe = function* (x: number, from: number | null): Generator<Probe, Probe, void> {
    const seen = look(x, from)
    yield seen
    return seen
  }
  let best = accept(yield* probe(start, null))
  if (Number.isNaN(best.value)) return foundAt(best, log, 0, 'missing')
  let worst = accept(yield* probe(start + step, start))
  let iterations = 0
  const order = () => {
    if (isLower(worst, best)) [best, worst] = [worst, best]
  }
  order()
  let stopped: Stop = 'settled'
  while (Math.abs(worst.x - best.x) > restWidth(best.x, tolerance)) {
    if (log.length >= most) stopped = 'most'
    if (isAway(best.x, start)) stopped = 'away'
    if (stopped !== 'settled') break
    iterations += 1
    const away = best.x - worst.x
    const reflected = yield* probe(best.x + away, best.x)
    if (isLower(reflected, best)) {
      const thrown = yield* probe(best.x + 2 * away, best.x)
      worst = best
      best = accept(isLower(thrown, reflected) ? thrown : reflected)
      continue
    }
    const outside = isLower(reflected, worst)
    worst = accept(yield* probe(outside ? best.x + away / 2 : best.x - away / 2, best.x))
    order()
  }
  if (stopped === 'settled' && log.every(({ value }) => value === best.value)) stopped = 'level'
  return foundAt(best, log, iterations, stopped)
}

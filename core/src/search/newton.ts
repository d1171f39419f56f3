import type { RealFunction } from '../evaluate/compile'
import {
  accept,
  createLook,
  foundAt,
  isAway,
  isLower,
  type Limits,
  type Stop,
  type Walk,
} from './walk'

const mostSteps = 100

/**
 * Newton's method for f′ = 0, held to going downhill: where f″ is not above 0, or a step does not
 * lead lower, it goes a little way downhill instead. Near a valley the digits double with each step.
 * Source: J. Nocedal, S. J. Wright, Numerical Optimization, Springer 2006 (from memory).
 */
export function* newtonWalk(
  f: Pick<RealFunction, 'value' | 'derivatives'>,
  start: number,
  { tolerance = 4 * Number.EPSILON, most = 500 }: Limits = {},
): Walk {
  if (!Number.isFinite(start)) throw new RangeError(`a search starts at a number: ${start}`)
  const { log, look } = createLook(f)
  let best = accept(look(start))
  yield best
  if (Number.isNaN(best.value)) return foundAt(best, log, 0, 'missing')
  let iterations = 0
  let stopped: Stop = 'most'
  while (iterations < mostSteps && log.length < most) {
    const [, slope = NaN, bend = NaN] = f.derivatives(best.x, 2)
    if (!Number.isFinite(slope)) {
      stopped = 'missing'
      break
    }
    if (slope === 0) {
      stopped = 'level'
      break
    }
    if (isAway(best.x, start)) {
      stopped = 'away'
      break
    }
    iterations += 1
    const reach = Math.max(1, Math.abs(best.x))
    let step = bend > 0 ? -slope / bend : -Math.sign(slope) * Math.min(0.5 * reach, Math.abs(slope))
    let moved = false
    for (; Math.abs(step) > tolerance * reach && log.length < most; step /= 4) {
      const next = look(best.x + step, best.x)
      yield next
      if (isLower(next, best)) {
        best = accept(next)
        moved = true
        break
      }
      // Next to the bottom values no longer tell; the step itself does.
      if (bend > 0 && Math.abs(step) < 1e-7 * reach) {
        if (next.value <= best.value) best = accept(next)
        break
      }
    }
    if (!moved) {
      stopped = log.length < most ? 'settled' : 'most'
      break
    }
  }
  return foundAt(best, log, iterations, stopped)
}

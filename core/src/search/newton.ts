import type { RealFunction } from '../evaluate/compile'
import { createLook, isLower, type Walk } from './walk'

const mostSteps = 100

/**
 * Newton's method for f′ = 0, held to going downhill: where f″ is not above 0, or a step does not
 * lead lower, it goes a little way downhill instead. Near a valley the digits double with each step.
 * Source: J. Nocedal, S. J. Wright, Numerical Optimization, Springer 2006 (from memory).
 */
export function* newtonWalk(f: Pick<RealFunction, 'value' | 'derivatives'>, start: number): Walk {
  if (!Number.isFinite(start)) throw new RangeError(`a search starts at a number: ${start}`)
  const { log, look } = createLook(f)
  let best = look(start)
  yield best
  let iterations = 0
  let settled = false
  while (iterations < mostSteps) {
    const [, slope = NaN, bend = NaN] = f.derivatives(best.x, 2)
    if (!Number.isFinite(slope)) break
    if (slope === 0) {
      settled = true
      break
    }
    iterations += 1
    const reach = Math.max(1, Math.abs(best.x))
    let step = bend > 0 ? -slope / bend : -Math.sign(slope) * Math.min(0.5 * reach, Math.abs(slope))
    const least = 4 * Number.EPSILON * reach
    let moved = false
    for (; Math.abs(step) > least; step /= 4) {
      const next = look(best.x + step)
      yield next
      if (isLower(next, best)) {
        best = next
        moved = true
        break
      }
      // Next to the bottom values no longer tell; the step itself does.
      if (bend > 0 && Math.abs(step) < 1e-7 * reach) {
        if (next.value <= best.value) best = next
        break
      }
    }
    if (!moved) {
      settled = true
      break
    }
  }
  return { ...best, iterations, evaluations: log.length, log, settled }
}

import type { RealFunction } from '../evaluate/compile'
import {
  accept,
  createLook,
  foundAt,
  isAway,
  type Limits,
  restWidth,
  type Stop,
  type Walk,
} from './walk'

/**
 * Steps against the slope, each as long as the slope times a fixed rate (A. Cauchy, Comptes rendus 25,
 * 1847, from memory). Every step is taken, also one that leads higher: a rate that is too large goes
 * to and fro, or away. Where the slope settles, the place is right to about tolerance / (rate · f″).
 * Throws RangeError for a start that is no number and a rate that is not above 0.
 */
export function* gradientWalk(
  f: Pick<RealFunction, 'value' | 'derivatives'>,
  start: number,
  rate = 0.1,
  { tolerance, most = 500 }: Limits = {},
): Walk {
  if (!Number.isFinite(start)) throw new RangeError(`a search starts at a number: ${start}`)
  if (!(rate > 0) || !Number.isFinite(rate)) {
    throw new RangeError(`a rate is a number above 0: ${rate}`)
  }
  const { log, look } = createLook(f)
  let now = accept(look(start))
  yield now
  let iterations = 0
  let stopped: Stop = 'most'
  while (log.length < most) {
    const [, slope = NaN] = f.derivatives(now.x, 1)
    if (!Number.isFinite(now.value) || !Number.isFinite(slope)) {
      stopped = 'missing'
      break
    }
    if (slope === 0) {
      stopped = 'level'
      break
    }
    const step = -rate * slope
    if (Math.abs(step) <= restWidth(now.x, tolerance)) {
      stopped = 'settled'
      break
    }
    if (isAway(now.x, start)) {
      stopped = 'away'
      break
    }
    iterations += 1
    const next = look(now.x + step, now.x)
    yield next
    if (Number.isNaN(next.value)) {
      stopped = 'missing'
      break
    }
    now = accept(next)
  }
  return foundAt(now, log, iterations, stopped)
}

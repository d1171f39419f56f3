import { checkReadings, leastSquares, quality } from './fit'

export type Shape = 'exponential' | 'power' | 'sine'

export interface ShapeFit {
  shape: Shape
  /** exponential a·e^(bx); power a·x^b; sine a·sin(bx + c) + d. */
  parameters: number[]
  rSquared: number
  residuals: number[]
  /** Why the fit should not be relied upon, in words; null where nothing speaks against it. */
  doubt: string | null
}

const rounds = 60
/** Below this R² the shape does not describe the readings. */
const poor = 0.9

/**
 * Fits a shape that is not a polynomial. Exponential and power start from the straight line through
 * logarithms and are then brought to the least squares of the readings themselves by Gauss-Newton
 * steps that are halved until they help; the sine tries frequencies from a quarter wave over the
 * readings to their spacing, with amplitude, phase and level by linear least squares, and refines
 * the best. Source: J. Nocedal, S. J. Wright, Numerical Optimization, Springer 2006, chapter 10
 * (from memory). Throws RangeError for readings the shape cannot take, and says why: values of both
 * signs for exponential and power, places that are not above 0 for power, too few readings.
 */
export function fitShape(xs: ArrayLike<number>, ys: ArrayLike<number>, shape: Shape): ShapeFit {
  checkReadings(xs, ys, shape === 'sine' ? 5 : 3)
  const [x, y] = [Array.from(xs), Array.from(ys)]
  if (shape === 'sine') return fitSine(x, y)
  const sign = Math.sign(y[0]!)
  if (sign === 0 || y.some((v) => Math.sign(v) !== sign)) {
    throw new RangeError('this shape keeps its sign, and the readings do not')
  }
  if (shape === 'power' && x.some((v) => !(v > 0))) {
    throw new RangeError('a power a·x^b is fitted to places above 0')
  }
  const t = shape === 'power' ? x.map(Math.log) : x
  const logs = y.map((v) => Math.log(Math.abs(v)))
  const [c, b] = leastSquares([Float64Array.from(t, () => 1), Float64Array.from(t)], logs) as [
    number,
    number,
  ]
  const model = (p: readonly number[], i: number) => p[0]! * Math.exp(p[1]! * t[i]!)
  const gradient = (p: readonly number[], i: number) => {
    const grown = Math.exp(p[1]! * t[i]!)
    return [grown, p[0]! * t[i]! * grown]
  }
  const parameters = improve([sign * Math.exp(c), b], y, model, gradient)
  const at = (v: number) =>
    parameters[0]! * Math.exp(parameters[1]! * (shape === 'power' ? Math.log(v) : v))
  const { rSquared, residuals } = quality(x, y, at)
  return { shape, parameters, rSquared, residuals, doubt: doubtOf(rSquared, x.length, 2) }
}

function fitSine(x: number[], y: number[]): ShapeFit {
  const [low, high] = [Math.min(...x), Math.max(...x)]
  const width = high - low
  const linear = (w: number) => {
    const columns = [
      Float64Array.from(x, (v) => Math.sin(w * v)),
      Float64Array.from(x, (v) => Math.cos(w * v)),
      Float64Array.from(x, () => 1),
    ]
    const [p, q, d] = leastSquares(columns, y) as [number, number, number]
    const left = y.reduce(
      (s, v, i) => s + (v - p * columns[0]![i]! - q * columns[1]![i]! - d) ** 2,
      0,
    )
    return { w, p, q, d, left }
  }
  // Half as many waves as readings: beyond that frequencies cannot be told apart.
  const most = (Math.PI * (x.length - 1)) / width
  const least = Math.PI / 2 / width
  const tries = 40 * x.length
  let best = linear(least)
  for (let i = 1; i <= tries; i++) {
    const found = linear(least + ((most - least) * i) / tries)
    if (found.left < best.left) best = found
  }
  const start = [Math.hypot(best.p, best.q), best.w, Math.atan2(best.q, best.p), best.d]
  const model = (p: readonly number[], i: number) => p[0]! * Math.sin(p[1]! * x[i]! + p[2]!) + p[3]!
  const gradient = (p: readonly number[], i: number) => {
    const inner = p[1]! * x[i]! + p[2]!
    const slope = p[0]! * Math.cos(inner)
    return [Math.sin(inner), slope * x[i]!, slope, 1]
  }
  const parameters = improve(start, y, model, gradient)
  const [a, w, c, d] = parameters as [number, number, number, number]
  const { rSquared, residuals } = quality(x, y, (v) => a * Math.sin(w * v + c) + d)
  const waves = (Math.abs(w) * width) / (2 * Math.PI)
  const doubt =
    waves < 0.5
      ? 'the readings cover less than half a wave, so amplitude and level are guesses'
      : doubtOf(rSquared, x.length, 4)
  return { shape: 'sine', parameters, rSquared, residuals, doubt }
}

function doubtOf(rSquared: number, readings: number, parameters: number): string | null {
  if (readings <= parameters + 1) {
    return `${readings} readings hardly test a shape with ${parameters} free numbers`
  }
  return rSquared < poor ? 'the readings do not follow this shape' : null
}

/** Gauss-Newton steps, each halved until the squares get less. */
function improve(
  start: readonly number[],
  y: readonly number[],
  model: (p: readonly number[], i: number) => number,
  gradient: (p: readonly number[], i: number) => number[],
): number[] {
  const squares = (p: readonly number[]) => y.reduce((s, v, i) => s + (v - model(p, i)) ** 2, 0)
  let p = [...start]
  let left = squares(p)
  for (let round = 0; round < rounds; round++) {
    const rows = y.map((_, i) => gradient(p, i))
    const columns = p.map((_, k) => Float64Array.from(rows, (row) => row[k]!))
    if (columns.some((c) => c.some((v) => !Number.isFinite(v)))) return p
    const step = leastSquares(
      columns,
      y.map((v, i) => v - model(p, i)),
    )
    let share = 1
    let next = p
    let after = Infinity
    for (; share > 1e-6; share /= 2) {
      next = p.map((v, k) => v + share * step[k]!)
      after = squares(next)
      if (after < left) break
    }
    if (!(after < left)) return p
    const gained = left - after
    ;[p, left] = [next, after]
    if (gained <= 1e-15 * left) return p
  }
  return p
}

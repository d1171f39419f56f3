import { compensatedSum } from './quadrature'

export interface PolynomialFit {
  /** Constant first. */
  coefficients: number[]
  /** 1 − (sum of squared residuals)/(sum of squares about the mean); 1 for a perfect fit. */
  rSquared: number
  /** reading − fitted value, in the order of the readings. */
  residuals: number[]
}

/** Throws RangeError for readings that cannot be fitted, naming the offending one. */
export function checkReadings(xs: ArrayLike<number>, ys: ArrayLike<number>, least: number): void {
  if (xs.length !== ys.length) {
    throw new RangeError(`${xs.length} places have ${ys.length} readings`)
  }
  for (let i = 0; i < xs.length; i++) {
    if (!Number.isFinite(xs[i]) || !Number.isFinite(ys[i])) {
      throw new RangeError(`reading ${i + 1} is no number: (${xs[i]}, ${ys[i]})`)
    }
  }
  const different = new Set(Array.from(xs)).size
  if (different < least) {
    throw new RangeError(`this fit needs ${least} different places, and there are ${different}`)
  }
}

/**
 * The polynomial of a degree that fits readings best by least squares, by Householder QR of the
 * columns 1, t, t², … with t scaled to [-1, 1], then written in powers of x. Source: G. H. Golub,
 * C. F. Van Loan, Matrix Computations, Johns Hopkins 2013, section 5.3 (from memory). Wampler's
 * problems of degree 5 come out to 1e-9 relative. Throws RangeError for a degree that is no whole
 * number of 0 or more, for readings that are no numbers and for fewer different places than
 * coefficients.
 */
export function fitPolynomial(
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  degree: number,
): PolynomialFit {
  if (!Number.isInteger(degree) || degree < 0) {
    throw new RangeError(`a degree is a whole number of 0 or more: ${degree}`)
  }
  checkReadings(xs, ys, degree + 1)
  const all = Array.from(xs)
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const middle = low / 2 + high / 2
  const half = high > low ? (high - low) / 2 : 1
  const columns = Array.from({ length: degree + 1 }, (_, k) =>
    Float64Array.from(all, (x) => ((x - middle) / half) ** k),
  )
  const scaled = leastSquares(columns, ys)
  const coefficients = inPowersOfX(scaled, middle, half)
  const fitted = (x: number) =>
    scaled.reduceRight((value, c) => value * ((x - middle) / half) + c, 0)
  return { coefficients, ...quality(all, ys, fitted) }
}

/** Residuals and R² of a fitted function. Readings that are all equal are fitted fully or not. */
export function quality(
  xs: readonly number[],
  ys: ArrayLike<number>,
  fitted: (x: number) => number,
): { rSquared: number; residuals: number[] } {
  const residuals = xs.map((x, i) => ys[i]! - fitted(x))
  const mean = compensatedSum(Array.from(ys)) / xs.length
  const spread = compensatedSum(Array.from(ys, (y) => (y - mean) ** 2))
  const left = compensatedSum(residuals.map((r) => r * r))
  const level = spread <= 1e-28 * Math.max(1, mean * mean)
  return { rSquared: level ? 1 : 1 - left / spread, residuals }
}

/** The combination of columns nearest to ys, by Householder reflections. */
export function leastSquares(columns: readonly Float64Array[], ys: ArrayLike<number>): number[] {
  const rows = ys.length
  const count = columns.length
  const a = columns.map((c) => c.slice())
  const b = Float64Array.from(ys)
  const diagonal: number[] = []
  for (let k = 0; k < count; k++) {
    const column = a[k]!
    let size = 0
    for (let i = k; i < rows; i++) size = Math.hypot(size, column[i]!)
    const pivot = column[k]! > 0 ? -size : size
    diagonal.push(pivot)
    if (size === 0) continue
    column[k]! -= pivot
    let square = 0
    for (let i = k; i < rows; i++) square += column[i]! * column[i]!
    const reflect = (other: Float64Array) => {
      let dot = 0
      for (let i = k; i < rows; i++) dot += column[i]! * other[i]!
      const factor = (2 * dot) / square
      for (let i = k; i < rows; i++) other[i]! -= factor * column[i]!
    }
    for (let j = k + 1; j < count; j++) reflect(a[j]!)
    reflect(b)
  }
  const out = new Array<number>(count).fill(0)
  for (let k = count - 1; k >= 0; k--) {
    let value = b[k]!
    for (let j = k + 1; j < count; j++) value -= a[j]![k]! * out[j]!
    out[k] = diagonal[k] === 0 ? 0 : value / diagonal[k]!
  }
  return out
}

/** Σ cₖ ((x − m)/h)ᵏ in powers of x. */
function inPowersOfX(scaled: readonly number[], middle: number, half: number): number[] {
  let out: number[] = [0]
  for (const c of [...scaled].reverse()) {
    // out · (x − m)/h + c
    const next = new Array<number>(out.length + 1).fill(0)
    out.forEach((v, k) => {
      next[k]! -= (v * middle) / half
      next[k + 1]! += v / half
    })
    next[0]! += c
    out = next
  }
  return out.slice(0, scaled.length)
}

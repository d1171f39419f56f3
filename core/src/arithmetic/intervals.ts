/**
 * Interval arithmetic on the reals with outward rounding: every result holds all values that the
 * operation has on the operands. A bound may be infinite; a set is then unbounded there. Sources:
 * R. E. Moore, R. B. Kearfott, M. J. Cloud, Introduction to Interval Analysis, SIAM 2009 (from
 * memory); IEEE 754 for the rounding of + − × ÷ √. Math.sin and its like are not correctly
 * rounded: their results are widened by 2 units in the last place, Math.pow by 4.
 */
export interface Interval {
  readonly lo: number
  readonly hi: number
}

/** What came up while a formula was evaluated on a box. */
export interface BoxNotes {
  /** Somewhere on the box the formula has no value. */
  partial: boolean
  /** Nowhere on the box has it one. */
  empty: boolean
  /** It may jump on the box. */
  jumps: boolean
  /** It may have kinks or unbounded slopes on the box. */
  kinks: boolean
}
export const noNotes = (): BoxNotes => ({
  partial: false,
  empty: false,
  jumps: false,
  kinks: false,
})

export const interval = (lo: number, hi: number): Interval => ({ lo, hi })
export const point = (x: number): Interval => ({ lo: x, hi: x })
export const everything: Interval = { lo: -Infinity, hi: Infinity }
export const zeroInterval: Interval = { lo: 0, hi: 0 }
const oneInterval: Interval = { lo: 1, hi: 1 }

export const width = ({ lo, hi }: Interval) => hi - lo
export const holdsZero = ({ lo, hi }: Interval) => lo <= 0 && hi >= 0
export const middle = ({ lo, hi }: Interval) => {
  const m = (lo + hi) / 2
  return Number.isFinite(m) ? m : lo / 2 + hi / 2
}
/** −1 or 1 where every value has that sign, else 0. */
export const signOf = ({ lo, hi }: Interval): -1 | 0 | 1 => (lo > 0 ? 1 : hi < 0 ? -1 : 0)
export const hull = (a: Interval, b: Interval): Interval => ({
  lo: Math.min(a.lo, b.lo),
  hi: Math.max(a.hi, b.hi),
})
/** What two enclosures of the same thing leave; the first where rounding has set them apart. */
export const meet = (a: Interval, b: Interval): Interval => {
  const lo = Math.max(a.lo, b.lo)
  const hi = Math.min(a.hi, b.hi)
  return lo <= hi ? { lo, hi } : a
}

/*
 * S. M. Rump, P. Zimmermann, S. Boldo, G. Melquiond, Computing predecessor and successor in
 * rounding to nearest, BIT 2009 (from memory): x + (|x|·φ + η) is at least the next double.
 */
const phi = 1.1102230246251568e-16
const eta = 5e-324
export const up = (x: number) =>
  x === -Infinity ? -Number.MAX_VALUE : x + (Math.abs(x) * phi + eta)
export const down = (x: number) =>
  x === Infinity ? Number.MAX_VALUE : x - (Math.abs(x) * phi + eta)
const up2 = (x: number) => up(up(x))
const down2 = (x: number) => down(down(x))

/** Whether a + b came out without rounding (Knuth's two-sum; from memory). */
const sumIsExact = (a: number, b: number, s: number) => {
  const t = s - a
  return a - (s - t) + (b - t) === 0
}
const splitter = 134217729
/** Whether a · b came out without rounding (Dekker's product; from memory). False when in doubt. */
function productIsExact(a: number, b: number, p: number): boolean {
  if (p === 0) return a === 0 || b === 0
  const size = Math.abs(p)
  if (!(size > 1e-250 && size < 1e290) || Math.abs(a) > 1e290 || Math.abs(b) > 1e290) return false
  const ca = splitter * a
  const ah = ca - (ca - a)
  const al = a - ah
  const cb = splitter * b
  const bh = cb - (cb - b)
  const bl = b - bh
  return al * bl - (p - ah * bh - al * bh - ah * bl) === 0
}

const sumDown = (a: number, b: number) => {
  const s = a + b
  if (Number.isNaN(s)) return -Infinity
  return sumIsExact(a, b, s) ? s : down(s)
}
const sumUp = (a: number, b: number) => {
  const s = a + b
  if (Number.isNaN(s)) return Infinity
  return sumIsExact(a, b, s) ? s : up(s)
}
/** 0 times an infinite bound is 0: the bound stands for reals without limit, none is infinite. */
const times = (a: number, b: number) => (a === 0 || b === 0 ? 0 : a * b)
const productDown = (a: number, b: number) => {
  const p = times(a, b)
  return productIsExact(a, b, p) || p === -Infinity ? p : down(p)
}
const productUp = (a: number, b: number) => {
  const p = times(a, b)
  return productIsExact(a, b, p) || p === Infinity ? p : up(p)
}
const ratioDown = (a: number, b: number) => {
  const q = a / b
  return a === 0 || (Number.isFinite(q) && productIsExact(q, b, a) && q * b === a) ? q : down(q)
}
const ratioUp = (a: number, b: number) => {
  const q = a / b
  return a === 0 || (Number.isFinite(q) && productIsExact(q, b, a) && q * b === a) ? q : up(q)
}

export const add = (a: Interval, b: Interval): Interval => ({
  lo: sumDown(a.lo, b.lo),
  hi: sumUp(a.hi, b.hi),
})
export const negated = (a: Interval): Interval => ({ lo: -a.hi + 0, hi: -a.lo + 0 })
export const subtract = (a: Interval, b: Interval): Interval => add(a, negated(b))

export function multiply(a: Interval, b: Interval): Interval {
  if (a.lo >= 0) {
    if (b.lo >= 0) return { lo: productDown(a.lo, b.lo), hi: productUp(a.hi, b.hi) }
    if (b.hi <= 0) return { lo: productDown(a.hi, b.lo), hi: productUp(a.lo, b.hi) }
    return { lo: productDown(a.hi, b.lo), hi: productUp(a.hi, b.hi) }
  }
  if (a.hi <= 0) {
    if (b.lo >= 0) return { lo: productDown(a.lo, b.hi), hi: productUp(a.hi, b.lo) }
    if (b.hi <= 0) return { lo: productDown(a.hi, b.hi), hi: productUp(a.lo, b.lo) }
    return { lo: productDown(a.lo, b.hi), hi: productUp(a.lo, b.lo) }
  }
  if (b.lo >= 0) return { lo: productDown(a.lo, b.hi), hi: productUp(a.hi, b.hi) }
  if (b.hi <= 0) return { lo: productDown(a.hi, b.lo), hi: productUp(a.lo, b.lo) }
  return {
    lo: Math.min(productDown(a.lo, b.hi), productDown(a.hi, b.lo)),
    hi: Math.max(productUp(a.lo, b.lo), productUp(a.hi, b.hi)),
  }
}

export const scale = (a: Interval, factor: number): Interval => multiply(a, point(factor))

/** a/b over those values of b that are not 0. */
export function divide(a: Interval, b: Interval): Interval {
  if (b.lo > 0 || b.hi < 0) {
    const p = b.lo > 0 ? b : negated(b)
    const c = b.lo > 0 ? a : negated(a)
    return {
      lo: c.lo >= 0 ? ratioDown(c.lo, p.hi) : ratioDown(c.lo, p.lo),
      hi: c.hi >= 0 ? ratioUp(c.hi, p.lo) : ratioUp(c.hi, p.hi),
    }
  }
  if (a.lo === 0 && a.hi === 0) return zeroInterval
  if (b.lo === 0 && b.hi > 0) {
    if (a.lo >= 0) return { lo: ratioDown(a.lo, b.hi), hi: Infinity }
    if (a.hi <= 0) return { lo: -Infinity, hi: ratioUp(a.hi, b.hi) }
  }
  if (b.hi === 0 && b.lo < 0) return negated(divide(a, negated(b)))
  return everything
}

export function square(a: Interval): Interval {
  const m = magnitudes(a)
  return { lo: Math.max(0, productDown(m.lo, m.lo)), hi: productUp(m.hi, m.hi) }
}

/** The least and greatest |x|. */
export function magnitudes({ lo, hi }: Interval): Interval {
  if (lo >= 0) return { lo, hi }
  if (hi <= 0) return { lo: -hi + 0, hi: -lo }
  return { lo: 0, hi: Math.max(-lo, hi) }
}

export function wholePower(a: Interval, n: number): Interval {
  if (n < 0) return divide(oneInterval, wholePower(a, -n))
  if (n === 0) return oneInterval
  // An even power is one of |x|; an odd one is monotone, so its ends are enough.
  const powerDown = (x: number) => byEnds(x, n, productDown, productUp)
  const powerUp = (x: number) => byEnds(x, n, productUp, productDown)
  if (n % 2 === 1) return { lo: powerDown(a.lo), hi: powerUp(a.hi) }
  const m = magnitudes(a)
  return { lo: Math.max(0, powerDown(m.lo)), hi: powerUp(m.hi) }
}

/** x^n rounded one way: for a negative x the size is rounded the other way and the sign put back. */
function byEnds(
  x: number,
  n: number,
  round: (a: number, b: number) => number,
  other: (a: number, b: number) => number,
): number {
  if (x < 0) return -positivePower(-x, n, other)
  return positivePower(x, n, round)
}
function positivePower(x: number, n: number, round: (a: number, b: number) => number): number {
  let result = 1
  let factor = x
  for (let rest = n; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) result = round(result, factor)
    if (rest > 1) factor = round(factor, factor)
  }
  return result
}

/** A function that rises on the whole interval, from its ends. */
export const rising = (
  f: (x: number) => number,
  { lo, hi }: Interval,
  isExact: (x: number) => boolean = (x) => x === 0,
): Interval => ({
  lo: isExact(lo) ? f(lo) : down2(f(lo)),
  hi: isExact(hi) ? f(hi) : up2(f(hi)),
})
export const falling = (f: (x: number) => number, { lo, hi }: Interval): Interval => ({
  lo: down2(f(hi)),
  hi: up2(f(lo)),
})

/** The part of a on which a function has values, noted; null where there is none. */
function within(a: Interval, lo: number, hi: number, notes: BoxNotes): Interval | null {
  if (a.hi < lo || a.lo > hi) {
    notes.empty = notes.partial = true
    return null
  }
  if (a.lo >= lo && a.hi <= hi) return a
  notes.partial = true
  return { lo: Math.max(a.lo, lo), hi: Math.min(a.hi, hi) }
}

/** Whether a multiple step·k + offset may lie in [lo, hi]; true when in doubt. */
function holdsMultiple({ lo, hi }: Interval, step: number, offset: number): boolean {
  const [a, b] = [(lo - offset) / step, (hi - offset) / step]
  const slack = 4e-16 * (Math.abs(a) + Math.abs(b) + 1)
  return !(Math.ceil(a - slack) > b + slack)
}

const clampUnit = ({ lo, hi }: Interval): Interval => ({
  lo: Math.max(-1, lo),
  hi: Math.min(1, hi),
})

function wave(f: (x: number) => number, a: Interval, top: number, isExact: number): Interval {
  if (!(a.hi - a.lo < 2 * Math.PI)) return { lo: -1, hi: 1 }
  const value = (x: number, round: (y: number) => number) => (x === isExact ? f(x) : round(f(x)))
  const lo = Math.min(value(a.lo, down2), value(a.hi, down2))
  const hi = Math.max(value(a.lo, up2), value(a.hi, up2))
  if (a.lo === a.hi) return clampUnit({ lo, hi })
  return clampUnit({
    lo: holdsMultiple(a, 2 * Math.PI, top + Math.PI) ? -1 : lo,
    hi: holdsMultiple(a, 2 * Math.PI, top) ? 1 : hi,
  })
}
export const sin = (a: Interval) => wave(Math.sin, a, Math.PI / 2, 0)
export const cos = (a: Interval) => wave(Math.cos, a, 0, 0)

export function tan(a: Interval, notes: BoxNotes): Interval {
  const pole = a.lo !== a.hi && holdsMultiple(a, Math.PI, Math.PI / 2)
  if (a.hi - a.lo >= Math.PI || pole) {
    notes.partial = notes.jumps = true
    return everything
  }
  return rising(Math.tan, a)
}
export const exp = (a: Interval): Interval => {
  const { lo, hi } = rising(Math.exp, a)
  return { lo: Math.max(0, lo), hi }
}
const logarithm =
  (f: (x: number) => number, isExact: (x: number) => boolean) =>
  (a: Interval, notes: BoxNotes): Interval => {
    const part = within(a, 0, Infinity, notes)
    if (!part || part.hi === 0) {
      notes.empty = notes.partial = true
      return everything
    }
    if (part.lo === 0) {
      notes.partial = true
      return { lo: -Infinity, hi: isExact(part.hi) ? f(part.hi) : up2(f(part.hi)) }
    }
    return rising(f, part, isExact)
  }
export const ln = logarithm(Math.log, (x) => x === 1)
export const log10 = logarithm(Math.log10, (x) => x === 1 || x === 10 || x === 100)

export function sqrt(a: Interval, notes: BoxNotes): Interval {
  const part = within(a, 0, Infinity, notes)
  if (!part) return everything
  const low = Math.sqrt(part.lo)
  const high = Math.sqrt(part.hi)
  return {
    lo: productIsExact(low, low, part.lo) && low * low === part.lo ? low : Math.max(0, down(low)),
    hi: productIsExact(high, high, part.hi) && high * high === part.hi ? high : up(high),
  }
}
const isSmallCube = (x: number) => {
  const root = Math.cbrt(x)
  return Number.isInteger(root) && root * root * root === x && Math.abs(root) < 1e5
}
export const cbrt = (a: Interval) => rising(Math.cbrt, a, isSmallCube)
/** x^r for x of 0 or more and a real r; monotone, so the ends decide. */
export function realPower(a: Interval, r: number, notes: BoxNotes): Interval {
  const part = within(a, 0, Infinity, notes)
  if (!part) return everything
  // Beside the 4 units of pow itself, a rounded exponent moves x^r by r·ln x roundings.
  const spread = (x: number) => 5e-16 + 1.2e-16 * Math.abs(r * Math.log(x))
  const isExact = (x: number) => x === 0 || x === 1 || x === Infinity
  const low = (x: number) => (isExact(x) ? Math.pow(x, r) : down(Math.pow(x, r) * (1 - spread(x))))
  const high = (x: number) => (isExact(x) ? Math.pow(x, r) : up(Math.pow(x, r) * (1 + spread(x))))
  if (r >= 0) return { lo: Math.max(0, low(part.lo)), hi: high(part.hi) }
  if (part.lo === 0) notes.partial = true
  if (part.hi === 0) {
    notes.empty = true
    return everything
  }
  return { lo: Math.max(0, low(part.hi)), hi: part.lo === 0 ? Infinity : high(part.lo) }
}
export function arcsin(a: Interval, notes: BoxNotes): Interval {
  const part = within(a, -1, 1, notes)
  return part ? rising(Math.asin, part) : everything
}
export function arccos(a: Interval, notes: BoxNotes): Interval {
  const part = within(a, -1, 1, notes)
  if (!part) return everything
  const { lo, hi } = falling(Math.acos, part)
  return { lo: part.hi === 1 ? 0 : Math.max(0, lo), hi }
}
export const arctan = (a: Interval) => rising(Math.atan, a)
export const sinh = (a: Interval) => rising(Math.sinh, a)
export const tanh = (a: Interval) => clampUnit(rising(Math.tanh, a))
export function cosh(a: Interval): Interval {
  const { lo, hi } = rising(Math.cosh, magnitudes(a))
  return { lo: Math.max(1, lo), hi }
}

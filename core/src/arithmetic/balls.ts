import { Decimal } from 'decimal.js'
import type { Rational } from './rational'

/**
 * A number with many digits: it lies within r of m. An infinite r says that nothing is known at this
 * precision; a NaN m that there is no such number.
 */
export interface Ball {
  m: Decimal
  r: Decimal
}

/** The radius has few digits, and is always rounded up. */
const Radius = Decimal.clone({ precision: 8, rounding: Decimal.ROUND_UP })
const nothing = new Radius(0)
/** e to this power is beyond doubles by far, and e to its opposite below this. */
const [largestExponent, smallestPower] = [1e15, '1e-434294481903251']

/**
 * Arithmetic with so many digits in which every result says how far it may be off: the roundings of
 * each step are added up. Functions are those of decimal.js, which promises their last digit but one;
 * a hundredfold of that is allowed for.
 */
export class BallArithmetic {
  readonly none: Ball
  readonly unsure: Ball
  private readonly Number: typeof Decimal

  constructor(readonly digits: number) {
    this.Number = Decimal.clone({ precision: digits, rounding: Decimal.ROUND_HALF_EVEN })
    this.none = { m: new this.Number(NaN), r: nothing }
    this.unsure = { m: new this.Number(0), r: new Radius(Infinity) }
  }

  /** An exact number; of a fraction that does not end, its first digits. */
  of({ n, d }: Rational): Ball {
    const [above, below] = [new this.Number(String(n)), new this.Number(String(d))]
    return this.divide(this.exactly(above, String(n)), this.exactly(below, String(d)))
  }

  /** What a double stands for by its shortest decimal. */
  ofNumber(value: number): Ball {
    return this.checked({ m: new this.Number(value), r: nothing })
  }

  get pi(): Ball {
    return this.rounded(this.Number.acos(-1))
  }

  get e(): Ball {
    return this.rounded(this.Number.exp(1))
  }

  add(a: Ball, b: Ball): Ball {
    const m = this.Number.add(a.m, b.m)
    const r = Radius.add(a.r, b.r)
    return this.checked({ m, r: this.isExactSum(a.m, b.m) ? r : Radius.add(r, this.ulp(m)) })
  }

  negate = (a: Ball): Ball => ({ m: a.m.negated(), r: a.r })

  multiply(a: Ball, b: Ball): Ball {
    const m = this.Number.mul(a.m, b.m)
    const spread = Radius.add(
      Radius.add(Radius.mul(a.m.abs(), b.r), Radius.mul(b.m.abs(), a.r)),
      Radius.mul(a.r, b.r),
    )
    const isExact = a.m.precision() + b.m.precision() <= this.digits
    return this.checked({ m, r: isExact ? spread : Radius.add(spread, this.ulp(m)) })
  }

  divide(a: Ball, b: Ball): Ball {
    if (b.m.isZero() && b.r.isZero()) return this.none
    const least = b.m.abs().minus(b.r)
    if (!least.greaterThan(0)) return b.m.isNaN() || a.m.isNaN() ? this.none : this.unsure
    const m = this.Number.div(a.m, b.m)
    const spread = Radius.div(
      Radius.add(Radius.mul(a.r, b.m.abs()), Radius.mul(a.m.abs(), b.r)),
      new (Decimal.clone({ precision: 8, rounding: Decimal.ROUND_DOWN }))(b.m.abs().mul(least)),
    )
    const isExact =
      2 * m.precision() <= this.digits &&
      this.Number.mul(m, b.m).equals(a.m) &&
      b.m.precision() + m.precision() <= this.digits
    return this.checked({ m, r: isExact ? spread : Radius.add(spread, this.ulp(m)) })
  }

  /** To a whole power. */
  power(a: Ball, n: number): Ball {
    if (n < 0) return this.divide(this.ofNumber(1), this.power(a, -n))
    let [out, base] = [this.ofNumber(1), a]
    for (let k = n; k > 0; k = Math.floor(k / 2)) {
      if (k % 2 === 1) out = this.multiply(out, base)
      if (k > 1) base = this.multiply(base, base)
    }
    return out
  }

  exp(a: Ball): Ball {
    // Beyond these no double holds it, and working it out would take very long.
    if (a.m.greaterThan(largestExponent)) return this.unsure
    if (a.m.plus(a.r).lessThan(-largestExponent)) {
      return { m: new this.Number(0), r: new Radius(smallestPower) }
    }
    return this.rising(a, (x) => this.Number.exp(x))
  }

  ln(a: Ball): Ball {
    if (this.isBelow(a, 0)) return this.none
    if (a.m.isZero() && a.r.isZero()) return this.none
    return a.m.minus(a.r).greaterThan(0) ? this.rising(a, (x) => this.Number.ln(x)) : this.orNone(a)
  }

  sqrt(a: Ball): Ball {
    if (this.isBelow(a, 0)) return this.none
    if (a.r.isZero()) {
      const root = this.Number.sqrt(a.m)
      const isExact = 2 * root.precision() <= this.digits && this.Number.mul(root, root).equals(a.m)
      return isExact ? { m: root, r: nothing } : this.rounded(root)
    }
    return a.m.minus(a.r).isNegative() ? this.orNone(a) : this.rising(a, (x) => this.Number.sqrt(x))
  }

  cbrt = (a: Ball): Ball => this.rising(a, (x) => this.Number.cbrt(x))

  sin = (a: Ball): Ball => this.wave(a, (x) => this.Number.sin(x))
  cos = (a: Ball): Ball => this.wave(a, (x) => this.Number.cos(x))

  arctan = (a: Ball): Ball => this.rising(a, (x) => this.Number.atan(x))

  arcsin(a: Ball): Ball {
    const beyond = a.m.abs().minus(1)
    if (beyond.greaterThan(a.r)) return this.none
    if (beyond.plus(a.r).greaterThan(0)) return this.orNone(a)
    return this.rising(a, (x) => this.Number.asin(x))
  }

  abs(a: Ball): Ball {
    if (this.isBelow(a, 0)) return this.negate(a)
    return a.m.minus(a.r).isNegative() ? { m: a.m.abs(), r: a.r } : a
  }

  /** A function that jumps: what it is on all of the ball. */
  level(a: Ball, value: (x: Decimal) => Decimal): Ball {
    const [lo, hi] = this.ends(a)
    const [first, last] = [value(lo), value(hi)]
    return first.equals(last) ? { m: new this.Number(first), r: nothing } : this.orNone(a)
  }

  isBelow = (a: Ball, limit: number) => a.m.plus(a.r).lessThan(limit)

  /** Surely between these. */
  ends({ m, r }: Ball): [Decimal, Decimal] {
    // Within the radius lies all of it; a little more covers the rounding of the ends themselves.
    const wide = r.isZero() ? r : Radius.add(r, this.ulp(m))
    return [this.Number.sub(m, wide), this.Number.add(m, wide)]
  }

  private exactly(m: Decimal, text: string): Ball {
    return { m, r: m.equals(new Decimal(text)) ? nothing : this.ulp(m) }
  }

  /** A function that rises, by its values at both ends. */
  private rising(a: Ball, f: (x: Decimal) => Decimal): Ball {
    if (a.m.isNaN() || !a.r.isFinite()) return this.orNone(a)
    if (a.r.isZero()) {
      const value = f(a.m)
      return value.isZero() ? { m: value, r: nothing } : this.rounded(value)
    }
    const [lo, hi] = this.ends(a)
    const [p, q] = [f(lo), f(hi)]
    const m = this.Number.div(this.Number.add(p, q), 2)
    const r = Radius.add(Radius.sub(q, p).abs(), Radius.mul(this.ulp(m), 200))
    return this.checked({ m, r: Radius.add(r, Radius.mul(this.ulp(p), 200)) })
  }

  private wave(a: Ball, f: (x: Decimal) => Decimal): Ball {
    if (a.m.isNaN() || !a.r.isFinite()) return this.orNone(a)
    const m = f(a.m)
    if (a.m.isZero() && a.r.isZero()) return { m, r: nothing }
    // A large argument is reduced by π: what that loses does not shrink with the value.
    const lost = a.m.abs().lessThan(1) ? this.ulp(m) : this.ulp(new this.Number(1))
    return this.checked({ m, r: Radius.add(a.r, Radius.mul(lost, 200)) })
  }

  private rounded(m: Decimal): Ball {
    return this.checked({ m, r: Radius.mul(this.ulp(m), 200) })
  }

  private ulp(m: Decimal) {
    return m.isZero() || !m.isFinite() ? nothing : new Radius(`1e${m.e - this.digits + 1}`)
  }

  private checked(ball: Ball): Ball {
    if (ball.m.isNaN()) return ball.r.isFinite() ? this.none : this.unsure
    return ball.m.isFinite() && ball.r.isFinite() ? ball : this.unsure
  }

  private orNone = (a: Ball): Ball => (a.m.isNaN() ? this.none : this.unsure)

  private isExactSum(a: Decimal, b: Decimal): boolean {
    if (a.isZero() || b.isZero()) return true
    const lowest = Math.min(a.e - a.precision(), b.e - b.precision())
    return Math.max(a.e, b.e) + 1 - lowest <= this.digits
  }
}

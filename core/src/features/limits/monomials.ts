import { type Const, type Constants, isExactZero, signOf } from './constants'

/**
 * How fast something grows or vanishes as t → ∞: e^E · t^p₀ · (ln t)^p₁ · (ln ln t)^p₂ …, where E is
 * a sum of terms that grow, none of them a multiple of one of the logarithms.
 */
export interface Monomial {
  exponent: readonly Term[]
  powers: readonly Const[]
}

export interface Term {
  monomial: Monomial
  coefficient: Const
}

export const unit: Monomial = { exponent: [], powers: [] }

/** Growth, compared by its logarithm, as G. H. Hardy's Orders of Infinity (1910) does. */
export class Monomials {
  constructor(private readonly constants: Constants) {}

  /** t itself, ln t, ln ln t … */
  readonly logarithm = (depth: number): Monomial => {
    const { rational } = this.constants
    return {
      exponent: [],
      powers: Array.from({ length: depth + 1 }, (_, k) => rational(k === depth ? 1 : 0)),
    }
  }

  readonly multiply = (a: Monomial, b: Monomial): Monomial => ({
    exponent: this.addTerms(a.exponent, b.exponent),
    powers: this.addPowers(a.powers, b.powers),
  })

  readonly power = (a: Monomial, p: Const): Monomial => {
    if (isExactZero(p)) return unit
    const { multiply } = this.constants
    return {
      exponent: a.exponent.map(({ monomial, coefficient }) => ({
        monomial,
        coefficient: multiply(coefficient, p),
      })),
      powers: a.powers.map((q) => multiply(q, p)),
    }
  }

  readonly divide = (a: Monomial, b: Monomial): Monomial =>
    this.multiply(a, this.power(b, this.constants.rational(-1)))

  /** Sums of terms, equal ones together, without those that cancel. */
  private addTerms(a: readonly Term[], b: readonly Term[]): Term[] {
    const all: Term[] = [...a]
    for (const term of b) {
      const at = all.findIndex(({ monomial }) => this.compare(monomial, term.monomial) === 0)
      if (at < 0) all.push(term)
      else {
        const coefficient = this.constants.add(all[at]!.coefficient, term.coefficient)
        if (isExactZero(coefficient)) all.splice(at, 1)
        else all[at] = { monomial: term.monomial, coefficient }
      }
    }
    return all
  }

  private addPowers(a: readonly Const[], b: readonly Const[]): Const[] {
    const length = Math.max(a.length, b.length)
    const zero = this.constants.rational(0)
    const all = Array.from({ length }, (_, k) => this.constants.add(a[k] ?? zero, b[k] ?? zero))
    while (all.length > 0 && isExactZero(all.at(-1)!)) all.pop()
    return all
  }

  /** Above 0 where a outgrows b, 0 where they grow alike; Unsure where that cannot be told. */
  readonly compare = (a: Monomial, b: Monomial): -1 | 0 | 1 => {
    if (a === b) return 0
    const powers = this.addPowers(
      a.powers,
      b.powers.map((p) => this.constants.negate(p)),
    )
    const first = powers.findIndex((p) => !isExactZero(p))
    if (a.exponent.length === 0 && b.exponent.length === 0) {
      return first < 0 ? 0 : signOf(powers[first]!)
    }
    const minus = b.exponent.map(({ monomial, coefficient }) => ({
      monomial,
      coefficient: this.constants.negate(coefficient),
    }))
    const exponent = this.addTerms(a.exponent, minus)
    // The logarithm of the quotient: its leading term decides.
    const logarithms =
      first < 0 ? [] : [{ monomial: this.logarithm(first + 1), coefficient: powers[first]! }]
    const all = [...exponent, ...logarithms]
    if (all.length === 0) return 0
    const leading = all.reduce((p, q) => (this.compare(q.monomial, p.monomial) > 0 ? q : p))
    return signOf(leading.coefficient)
  }

  /** Whether something grows beyond all bounds (1), settles (0) or vanishes (-1). */
  readonly growth = (a: Monomial) => this.compare(a, unit)
}

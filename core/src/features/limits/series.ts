import { negate, type Tree } from '../../formula/tree'
import {
  type Const,
  Constants,
  isExactZero,
  NoValues,
  type Place,
  rationalOf,
  signOf,
  Unsure,
} from './constants'
import { type Monomial, Monomials, type Term, unit } from './monomials'

/**
 * A function as t → ∞ by its leading terms, greatest first, with what is left out: no more than a
 * multiple of `rest`; nothing where that is null.
 */
export interface Series {
  terms: readonly Term[]
  rest: Monomial | null
}

/** Arithmetic on series, of which so many terms are kept. */
export class SeriesAlgebra {
  readonly constants: Constants
  readonly monomials: Monomials

  constructor(
    place: Place,
    private readonly most: number,
  ) {
    this.constants = new Constants(place)
    this.monomials = new Monomials(this.constants)
  }

  readonly constant = (coefficient: Const): Series =>
    isExactZero(coefficient)
      ? { terms: [], rest: null }
      : { terms: [{ monomial: unit, coefficient }], rest: null }
  readonly tree = (tree: Tree): Series => this.constant(this.constants.of(tree))
  /** t to a power. */
  readonly powerOfT = (p: number): Series => ({
    terms: [
      {
        monomial: { exponent: [], powers: [this.constants.rational(p)] },
        coefficient: this.constants.rational(1),
      },
    ],
    rest: null,
  })

  /** Orders terms, joins equal ones, and drops what the rest outgrows or is too much. */
  private tidy(terms: readonly Term[], rest: Monomial | null): Series {
    const { compare } = this.monomials
    const joined: Term[] = []
    for (const term of terms) {
      if (rest && compare(term.monomial, rest) <= 0) continue
      const at = joined.findIndex(({ monomial }) => compare(monomial, term.monomial) <= 0)
      if (at >= 0 && compare(joined[at]!.monomial, term.monomial) === 0) {
        const coefficient = this.constants.add(joined[at]!.coefficient, term.coefficient)
        if (isExactZero(coefficient)) joined.splice(at, 1)
        else joined[at] = { ...term, coefficient }
      } else joined.splice(at < 0 ? joined.length : at, 0, term)
    }
    if (joined.length <= this.most) return { terms: joined, rest }
    const dropped = joined[this.most]!.monomial
    return { terms: joined.slice(0, this.most), rest: this.greater(rest, dropped) }
  }

  private greater(a: Monomial | null, b: Monomial | null): Monomial | null {
    if (!a || !b) return a ?? b
    return this.monomials.compare(a, b) >= 0 ? a : b
  }

  readonly add = (...all: Series[]): Series =>
    this.tidy(
      all.flatMap(({ terms }) => terms),
      all.map(({ rest }) => rest).reduce((a, b) => this.greater(a, b), null),
    )

  readonly scale = (s: Series, factor: Const): Series => ({
    terms: isExactZero(factor)
      ? []
      : s.terms.map(({ monomial, coefficient }) => ({
          monomial,
          coefficient: this.constants.multiply(coefficient, factor),
        })),
    rest: s.rest,
  })
  readonly negate = (s: Series): Series => this.scale(s, this.constants.rational(-1))
  readonly subtract = (a: Series, b: Series): Series => this.add(a, this.negate(b))

  readonly multiply = (a: Series, b: Series): Series => {
    const size = (s: Series) => s.terms[0]?.monomial ?? s.rest
    const [sizeA, sizeB] = [size(a), size(b)]
    const rests = [
      a.rest && sizeB ? this.monomials.multiply(a.rest, sizeB) : null,
      b.rest && sizeA ? this.monomials.multiply(b.rest, sizeA) : null,
    ]
    const terms = a.terms.flatMap((p) =>
      b.terms.map((q) => ({
        monomial: this.monomials.multiply(p.monomial, q.monomial),
        coefficient: this.constants.multiply(p.coefficient, q.coefficient),
      })),
    )
    return this.tidy(terms, this.greater(rests[0]!, rests[1]!))
  }

  /** The leading term, whose sign is certain; null where the function is 0 throughout. */
  readonly leading = (s: Series): Term | null => {
    const [first] = s.terms
    if (!first) {
      if (s.rest) throw new Unsure()
      return null
    }
    signOf(first.coefficient)
    return first
  }

  /** s = c·m·(1 + δ). */
  private apart(s: Series): { lead: Term; delta: Series } {
    const lead = this.leading(s)
    if (!lead) throw new NoValues()
    const { divide } = this.monomials
    const delta = {
      terms: s.terms.slice(1).map(({ monomial, coefficient }) => ({
        monomial: divide(monomial, lead.monomial),
        coefficient: this.constants.divide(coefficient, lead.coefficient),
      })),
      rest: s.rest && divide(s.rest, lead.monomial),
    }
    return { lead, delta }
  }

  /** a₀ + a₁ δ + a₂ δ² + … for a δ that vanishes. */
  readonly compose = (coefficients: (k: number) => Const, delta: Series): Series => {
    const size = delta.terms[0]?.monomial ?? delta.rest
    if (!size) return this.constant(coefficients(0))
    if (this.monomials.growth(size) >= 0) throw new Unsure()
    let power = this.constant(this.constants.rational(1))
    const parts: Series[] = []
    for (let k = 0; k <= this.most; k++) {
      parts.push(this.scale(power, coefficients(k)))
      power = this.multiply(power, delta)
    }
    // What is left begins with the next power of δ.
    const left = this.monomials.power(size, this.constants.rational(this.most + 1))
    return this.add(...parts, { terms: [], rest: left })
  }

  readonly power = (s: Series, p: Const): Series => {
    if (isExactZero(p)) return this.constant(this.constants.rational(1))
    const exact = rationalOf(p)
    if (s.terms.length === 0) {
      if (signOf(p) < 0) {
        if (s.rest) throw new Unsure()
        throw new NoValues()
      }
      return { terms: [], rest: s.rest && this.monomials.power(s.rest, p) }
    }
    const { lead, delta } = this.apart(s)
    const { add, multiply, divide, rational } = this.constants
    const binomial = (k: number): Const => {
      let c = rational(1)
      for (let i = 0; i < k; i++) c = divide(multiply(c, add(p, rational(-i))), rational(i + 1))
      return c
    }
    let coefficient = lead.coefficient
    let turned = false
    if (signOf(coefficient) < 0) {
      // Only powers with an odd denominator reach below 0.
      if (!exact || exact.d % 2n === 0n) throw new NoValues()
      turned = exact.n % 2n !== 0n
      coefficient = this.constants.negate(coefficient)
    }
    const size = this.constants.power(coefficient, p)
    const raised: Series = {
      terms: [
        {
          monomial: this.monomials.power(lead.monomial, p),
          coefficient: turned ? this.constants.of(negate(size.tree)) : size,
        },
      ],
      rest: null,
    }
    return this.multiply(raised, this.compose(binomial, delta))
  }

  readonly divide = (a: Series, b: Series): Series =>
    this.multiply(a, this.power(b, this.constants.rational(-1)))

  /** What grows, what stays and what vanishes of a series; Unsure where what is left out may stay. */
  readonly split = (s: Series): { grows: Term[]; stays: Const; vanishes: Series } => {
    const { growth } = this.monomials
    if (s.rest && growth(s.rest) >= 0) throw new Unsure()
    const grows = s.terms.filter(({ monomial }) => growth(monomial) > 0)
    const stays = s.terms.find(({ monomial }) => growth(monomial) === 0)
    const vanishes = s.terms.filter(({ monomial }) => growth(monomial) < 0)
    return {
      grows,
      stays: stays?.coefficient ?? this.constants.rational(0),
      vanishes: { terms: vanishes, rest: s.rest },
    }
  }

  readonly exp = (s: Series): Series => {
    const { grows, stays, vanishes } = this.split(s)
    const { add, divide, rational } = this.constants
    const exponent: Term[] = []
    let powers: Const[] = []
    for (const term of grows) {
      const depth = this.logarithmDepth(term.monomial)
      if (depth === null) exponent.push(term)
      else {
        // e^(c ln t) is t^c, and so on down.
        const zero = rational(0)
        const length = Math.max(powers.length, depth)
        powers = Array.from({ length }, (_, k) =>
          k === depth - 1 ? add(powers[k] ?? zero, term.coefficient) : (powers[k] ?? zero),
        )
      }
    }
    const factorial = (k: number): Const => {
      let f = 1n
      for (let i = 2n; i <= BigInt(k); i++) f *= i
      return divide(rational(1), rational(f))
    }
    const stayed = this.constants.exp(stays)
    const head: Series = {
      terms: [{ monomial: { exponent, powers }, coefficient: stayed }],
      rest: null,
    }
    return this.multiply(head, this.compose(factorial, vanishes))
  }

  /** k where a monomial is the k-th logarithm of t, from 1 on; null for all others. */
  private logarithmDepth({ exponent, powers }: Monomial): number | null {
    if (exponent.length > 0) return null
    const depth = powers.findIndex((p) => !isExactZero(p))
    const exact = depth > 0 ? rationalOf(powers[depth]!) : null
    const alone = powers.slice(depth + 1).every(isExactZero)
    return exact && exact.n === 1n && exact.d === 1n && alone ? depth : null
  }

  readonly ln = (s: Series): Series => {
    const { lead, delta } = this.apart(s)
    if (signOf(lead.coefficient) < 0) throw new NoValues()
    const { rational, divide } = this.constants
    const logarithms = lead.monomial.powers.flatMap((coefficient, k): Term[] =>
      isExactZero(coefficient) ? [] : [{ monomial: this.monomials.logarithm(k + 1), coefficient }],
    )
    const coefficients = (k: number) =>
      k === 0 ? rational(0) : divide(rational(k % 2 === 0 ? -1 : 1), rational(k))
    return this.add(
      { terms: [...lead.monomial.exponent, ...logarithms], rest: null },
      this.tree({ kind: 'call', name: 'ln', args: [lead.coefficient.tree] }),
      this.compose(coefficients, delta),
    )
  }
}

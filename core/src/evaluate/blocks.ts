import {
  type CallTree,
  childrenOf,
  type Condition,
  keyOf,
  literalFraction,
  type Relation,
  type Tree,
} from '../formula/tree'
import type { PiecesTree, PowerTree, QuotientTree } from '../formula/tree'
import { type FunctionName, logToBase, maybeEntry } from '../functions'
import { type Around, plainly } from '../functions/entry'
import { toNumber } from '../arithmetic/rational'
import { realPower, rootPower } from '../arithmetic/realPower'
import { holds } from '../formula/relations'
import { addProduct, addQuotient, cubeLoop, loopOf, loopOver, loopOverPairs } from './loops'
import { blockLength, type Operand, Tape } from './tape'

/** Evaluates a tape at all xs into out, with the slider values p. */
export type BlockProgram = (xs: ArrayLike<number>, out: Float64Array, p: Float64Array) => void

/**
 * Compiles a tree to a tape: each operation runs over a block of x at a time, equal parts are
 * computed once. Gives the same values as the closures of compileTree, bit for bit.
 */
export function compileBlocks(
  tree: Tree,
  variable: string,
  slots: ReadonlyMap<string, number>,
): BlockProgram {
  const compiler = new BlockCompiler(tree, variable, slots)
  const result = compiler.emit(tree).buffer
  const { input, steps } = compiler.tape
  return (xs, out, p) => {
    for (let start = 0; start < xs.length; start += blockLength) {
      const count = Math.min(blockLength, xs.length - start)
      if (xs instanceof Float64Array) input.set(xs.subarray(start, start + count))
      else for (let i = 0; i < count; i++) input[i] = xs[start + i]!
      for (let k = 0; k < steps.length; k++) steps[k]!(count, p)
      out.set(count === blockLength ? result : result.subarray(0, count), start)
    }
  }
}

/** Puts a tree on a tape, equal parts once. */
class BlockCompiler {
  readonly tape = new Tape()
  private readonly done = new Map<string, Operand>()
  /** Parts that stand in the formula more than once: each is worked out by itself. */
  private readonly repeated = new Set<string>()

  constructor(
    tree: Tree,
    private readonly variable: string,
    private readonly slots: ReadonlyMap<string, number>,
  ) {
    const seen = new Set<string>()
    const look = (part: Tree): void => {
      const key = keyOf(part)
      if (seen.has(key)) {
        this.repeated.add(key)
        return
      }
      seen.add(key)
      childrenOf(part).forEach(look)
    }
    look(tree)
  }

  readonly emit = (part: Tree): Operand => {
    const key = keyOf(part)
    const known = this.done.get(key)
    if (known) return known
    const operand = this.compile(part)
    this.done.set(key, operand)
    return operand
  }

  private compile(part: Tree): Operand {
    const { tape } = this
    switch (part.kind) {
      case 'number':
        return tape.fixedAt(toNumber(part.exact))
      case 'constant':
        return tape.fixedAt(part.name === 'pi' ? Math.PI : Math.E)
      case 'name':
        return this.named(part.name)
      case 'sum':
        return this.sum(part.terms)
      case 'product':
        return (
          this.around(part, 0) ?? part.factors.map(this.emit).reduce((u, v) => tape.multiply(u, v))
        )
      case 'quotient':
        return this.quotient(part)
      case 'power':
        return this.power(part)
      case 'call':
        return this.call(part)
      case 'curve':
        throw new TypeError(`the curve ${part.name} must be expanded before compiling`)
      case 'area': {
        const { area } = part
        return tape.unary(this.emit(part.at), (from, out, count) => {
          for (let i = 0; i < count; i++) out[i] = area.value(from[i]!)
        })
      }
      case 'pieces':
        return this.pieces(part)
    }
  }

  private named(name: string): Operand {
    if (name === this.variable) return { buffer: this.tape.input }
    const out = this.tape.fresh()
    const slot = this.slots.get(name)!
    this.tape.steps.push((count, p) => out.buffer.fill(p[slot]!, 0, count))
    return out
  }

  private sum([first, second, ...rest]: readonly Tree[]): Operand {
    const number = (term: Tree) => (term.kind === 'number' ? toNumber(term.exact) : null)
    const [a, b] = [number(first!), number(second!)]
    // A term that is needed again is worked out by itself, once.
    const beside = (term: Tree, shift: number) =>
      this.repeated.has(keyOf(term)) ? null : this.around(term, shift)
    const start =
      (a !== null ? beside(second!, a) : b !== null ? beside(first!, b) : null) ??
      this.accumulate(this.emit(first!), second!)
    return rest.reduce((total, term) => this.accumulate(total, term), start)
  }

  /**
   * A number and a multiple of a function of a multiple, 6 + 4 sin(0.9x), in one pass: the same
   * operations in the same order. Null for another formula, and where the function is needed by itself.
   */
  private around(term: Tree, shift: number): Operand | null {
    const multiple = multipleOf(term)
    const called = functionOf(multiple.of)
    if (!called || this.repeated.has(keyOf(multiple.of)) || this.done.has(keyOf(term))) return null
    // Adding -0 changes no number; adding 0 would turn -0.
    const more = shift === 0 ? -0 : shift
    return this.inside(called, { factor: multiple.factor, shift: more })
  }

  /** A function of an argument whose factor is multiplied in the same pass. */
  private inside(
    { name, argument }: { name: FunctionName; argument: Tree },
    around: Omit<Around, 'scale' | 'over'>,
  ): Operand {
    const known = this.done.get(keyOf(argument))
    if (known) return this.tape.unary(known, loopOf(name, { ...plainly, ...around }))
    const share = maybeEntry(name)?.divides ? shareOf(argument) : { over: 1, of: argument }
    const { factor, of } = multipleOf(share.of)
    return this.tape.unary(
      this.emit(of),
      loopOf(name, { ...around, scale: factor, over: share.over }),
    )
  }

  private quotient({ above, below }: QuotientTree): Operand {
    const number = below.kind === 'number' ? toNumber(below.exact) : 0
    const { factor, of } = multipleOf(above)
    const u = this.emit(factor === -1 && number !== 0 ? of : above)
    // A sign is exact wherever it stands.
    return factor === -1 && number !== 0 && u.fixed === undefined
      ? this.tape.divideFixed(u, -number)
      : this.tape.divide(this.emit(above), this.emit(below))
  }

  /**
   * The sum so far and one more term. A term k·v, u·v or u/v is worked out and added in one pass: the
   * same operations in the same order, without a buffer between.
   */
  private accumulate(total: Operand, term: Tree): Operand {
    const parts = total.fixed === undefined ? fusedParts(term) : null
    const key = keyOf(term)
    if (!parts || this.done.has(key) || this.repeated.has(key)) {
      return this.tape.add(total, this.emit(term))
    }
    const { left, right, factor } = parts
    const sign = factor < 0 ? -1 : 1
    if (parts.divides) {
      const { more, of } = this.repeated.has(keyOf(right)) ? { more: -0, of: right } : sumOf(right)
      const pair = [this.emit(left!), this.emit(of)] as const
      return this.tape.addPair(total, ...pair, addQuotient(more), sign)
    }
    const v = this.emit(right)
    if (left === null) return this.tape.addMultiple(total, v, factor)
    return this.tape.addPair(total, this.emit(left), v, addProduct, sign)
  }

  private power({ base, exponent }: PowerTree): Operand {
    const { tape } = this
    const fraction = literalFraction(exponent)
    if (fraction) return tape.unary(this.emit(base), loopOver(rootPower(fraction)))
    if (base.kind === 'constant' && base.name === 'e') {
      return this.inside({ name: 'exp', argument: exponent }, { factor: 1, shift: -0 })
    }
    if (exponent.kind === 'number') {
      const fixed = toNumber(exponent.exact)
      const below = this.emit(base)
      if (fixed === 2) return tape.multiply(below, below)
      if (fixed === 3) return tape.unary(below, cubeLoop)
      if (fixed === 4) {
        const square = tape.multiply(below, below)
        return tape.multiply(square, square)
      }
      return tape.unary(
        below,
        loopOver((x) => realPower(x, fixed)),
      )
    }
    return tape.binary(this.emit(base), this.emit(exponent), loopOverPairs(realPower))
  }

  private call({ name, args: of }: CallTree): Operand {
    const { tape } = this
    const [argument] = of
    if (of.length === 1 && maybeEntry(name)) {
      return this.inside({ name, argument: argument! }, { factor: 1, shift: -0 })
    }
    const args = of.map(this.emit)
    if (name === 'logBase') return tape.binary(args[0]!, args[1]!, loopOverPairs(logToBase))
    if (name === 'min' || name === 'max') {
      const loop = loopOverPairs(name === 'min' ? Math.min : Math.max)
      return args.reduce((u, v) => tape.binary(u, v, loop))
    }
    return tape.unary(args[0]!, loopOf(name))
  }

  /** Every piece runs over the whole block; the first whose condition holds is kept. */
  private pieces({ pieces }: PiecesTree): Operand {
    const { input, steps } = this.tape
    const all = pieces.map(({ body, when }) => ({
      body: this.emit(body).buffer,
      when: when && this.condition(when),
    }))
    const out = this.tape.fresh()
    steps.push((count) => {
      for (let i = 0; i < count; i++) {
        const chosen = Number.isNaN(input[i]!)
          ? undefined
          : all.find(({ when }) => !when || when(i))
        out.buffer[i] = chosen ? chosen.body[i]! : NaN
      }
    })
    return out
  }

  private condition(condition: Condition): (i: number) => boolean {
    if (condition.kind !== 'compare') {
      const parts = condition.of.map((part) => this.condition(part))
      return condition.kind === 'all'
        ? (i) => parts.every((part) => part(i))
        : (i) => parts.some((part) => part(i))
    }
    const terms = condition.terms.map((t) => this.emit(t).buffer)
    const relations: readonly Relation[] = condition.relations
    return (i) =>
      relations.every((relation, k) => holds(relation, terms[k]![i]!, terms[k + 1]![i]!))
  }
}

/** k·u, where a term is that; else the term once. */
function multipleOf(term: Tree): { factor: number; of: Tree } {
  if (term.kind === 'product' && term.factors.length === 2) {
    const [first, second] = term.factors
    if (first!.kind === 'number') return { factor: toNumber(first.exact), of: second! }
  }
  return { factor: 1, of: term }
}

/** u/k or −u/k, where a part is that and k no 0; else the part over 1. A sign is exact anywhere. */
function shareOf(part: Tree): { over: number; of: Tree } {
  const { factor, of } = multipleOf(part)
  if (of.kind !== 'quotient' || of.below.kind !== 'number' || Math.abs(factor) !== 1) {
    return { over: 1, of: part }
  }
  const over = toNumber(of.below.exact)
  return over === 0 ? { over: 1, of: part } : { over: factor * over, of: of.above }
}

/** k + u, where a part is that; else -0, which changes no number, and the part. */
function sumOf(part: Tree): { more: number; of: Tree } {
  if (part.kind === 'sum' && part.terms.length === 2) {
    const [first, second] = part.terms
    const more = first!.kind === 'number' ? toNumber(first.exact) : 0
    if (more !== 0) return { more, of: second! }
  }
  return { more: -0, of: part }
}

/** A function of one argument. */
function functionOf(term: Tree): { name: FunctionName; argument: Tree } | null {
  if (term.kind === 'call') {
    const { name, args } = term
    return args.length === 1 && maybeEntry(name) ? { name, argument: args[0]! } : null
  }
  const isExponential =
    term.kind === 'power' &&
    term.base.kind === 'constant' &&
    term.base.name === 'e' &&
    !literalFraction(term.exponent)
  return isExponential ? { name: 'exp', argument: term.exponent } : null
}

interface Fused {
  factor: number
  left: Tree | null
  right: Tree
  divides?: boolean
}

/** A term that can be worked out and added at once: k·v, u·v, −u·v, u/v or −u/v. */
function fusedParts(term: Tree): Fused | null {
  const over = multipleOf(term)
  if (over.of.kind === 'quotient' && Math.abs(over.factor) === 1) {
    const { above, below } = over.of
    // Over a number one operand stays in a register, which is quicker.
    if (below.kind === 'number') return null
    return { factor: over.factor, left: above, right: below, divides: true }
  }
  if (term.kind !== 'product') return null
  const [first, second, third] = term.factors
  const factor = first!.kind === 'number' ? toNumber(first.exact) : null
  if (term.factors.length === 2) {
    return factor === null
      ? { factor: 1, left: first!, right: second! }
      : { factor, left: null, right: second! }
  }
  // A sign is exact wherever it stands; another factor would round in another order.
  if (term.factors.length === 3 && factor === -1) return { factor, left: second!, right: third! }
  return null
}

import {
  type CallTree,
  type Condition,
  keyOf,
  literalFraction,
  type Relation,
  type Tree,
} from '../formula/tree'
import type { PiecesTree, PowerTree } from '../formula/tree'
import { logToBase } from '../functions'
import { toNumber } from '../arithmetic/rational'
import { realPower, rootPower } from '../arithmetic/realPower'
import { holds } from '../formula/relations'
import { loopOf, loopOver, loopOverPairs } from './loops'
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
  const compiler = new BlockCompiler(variable, slots)
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

  constructor(
    private readonly variable: string,
    private readonly slots: ReadonlyMap<string, number>,
  ) {}

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
        return part.terms
          .slice(1)
          .reduce((total, term) => this.accumulate(total, term), this.emit(part.terms[0]!))
      case 'product':
        return part.factors.map(this.emit).reduce((u, v) => tape.multiply(u, v))
      case 'quotient':
        return tape.divide(this.emit(part.above), this.emit(part.below))
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

  /**
   * The sum so far and one more term. A term k·v or u·v is multiplied and added in one pass: the
   * same operations in the same order, without a buffer between.
   */
  private accumulate(total: Operand, term: Tree): Operand {
    const parts = total.fixed === undefined ? fusedParts(term) : null
    if (!parts || this.done.has(keyOf(term))) return this.tape.add(total, this.emit(term))
    const { left, right, factor } = parts
    const v = this.emit(right)
    return left === null
      ? this.tape.addMultiple(total, v, factor)
      : this.tape.addProduct(total, this.emit(left), v, factor < 0)
  }

  private power({ base, exponent }: PowerTree): Operand {
    const { tape } = this
    const fraction = literalFraction(exponent)
    if (fraction) return tape.unary(this.emit(base), loopOver(rootPower(fraction)))
    if (base.kind === 'constant' && base.name === 'e') {
      return tape.unary(this.emit(exponent), loopOf('exp'))
    }
    if (exponent.kind === 'number') {
      const fixed = toNumber(exponent.exact)
      const below = this.emit(base)
      if (fixed === 2) return tape.multiply(below, below)
      return tape.unary(
        below,
        loopOver((x) => realPower(x, fixed)),
      )
    }
    return tape.binary(this.emit(base), this.emit(exponent), loopOverPairs(realPower))
  }

  private call({ name, args: of }: CallTree): Operand {
    const { tape } = this
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

/** A term that can be multiplied and added at once: k·v, u·v or -u·v. */
function fusedParts(term: Tree): { factor: number; left: Tree | null; right: Tree } | null {
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

import { entryOf, logToBase, type FunctionName } from '../functions'
import { toNumber } from '../arithmetic/rational'
import { type Condition, keyOf, literalFraction, type Relation, type Tree } from '../formula/tree'
import { realPower, rootPower } from '../arithmetic/realPower'
import { holds } from '../formula/relations'

/** Evaluates a tape at all xs into out, with the slider values p. */
export type BlockProgram = (xs: ArrayLike<number>, out: Float64Array, p: Float64Array) => void

/** Values handled at once: small enough that all buffers of a usual formula stay in the cache. */
const blockLength = 256

type Step = (count: number, p: Float64Array) => void

interface Operand {
  buffer: Float64Array
  /** Set where the operand is one number for all x and all sliders. */
  fixed?: number
}

type UnaryLoop = (a: Float64Array, out: Float64Array, count: number) => void
type BinaryLoop = (a: Float64Array, b: Float64Array, out: Float64Array, count: number) => void

/*
 * A call through a variable costs more than most operations it could make, so the operations a
 * formula is mostly made of have a loop of their own, in which the engine knows what is called.
 */
const addLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! + b[i]!
}
const multiplyLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! * b[i]!
}
const divideLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = b[i] === 0 ? NaN : a[i]! / b[i]!
}
const shift = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! + by
}
const scale = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! * by
}
const shrink = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! / by
}
const addScaled = (
  total: Float64Array,
  a: Float64Array,
  out: Float64Array,
  count: number,
  by: number,
) => {
  for (let i = 0; i < count; i++) out[i] = total[i]! + by * a[i]!
}
type ProductLoop = (
  total: Float64Array,
  a: Float64Array,
  b: Float64Array,
  out: Float64Array,
  count: number,
) => void
const addProduct: ProductLoop = (total, a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = total[i]! + a[i]! * b[i]!
}
const subtractProduct: ProductLoop = (total, a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = total[i]! - a[i]! * b[i]!
}

/** A term that can be multiplied and added at once: k·v, u·v or -u·v. */
function fusedParts(term: Tree): { factor: number; left: Tree | null; right: Tree } | null {
  if (term.kind !== 'product') return null
  const [first, second, third] = term.factors
  const factor = first!.kind === 'number' ? toNumber(first!.exact) : null
  if (term.factors.length === 2) {
    return factor === null
      ? { factor: 1, left: first!, right: second! }
      : { factor, left: null, right: second! }
  }
  // A sign is exact wherever it stands; another factor would round in another order.
  if (term.factors.length === 3 && factor === -1) return { factor, left: second!, right: third! }
  return null
}

const loopOver =
  (apply: (x: number) => number): UnaryLoop =>
  (a, out, count) => {
    for (let i = 0; i < count; i++) out[i] = apply(a[i]!)
  }
const loopOf = (name: FunctionName): UnaryLoop => {
  const { loop, value } = entryOf(name)
  return loop ?? loopOver(value)
}
const loopOverPairs =
  (apply: (x: number, y: number) => number): BinaryLoop =>
  (a, b, out, count) => {
    for (let i = 0; i < count; i++) out[i] = apply(a[i]!, b[i]!)
  }

/**
 * Compiles a tree to a tape: each operation runs over a block of x at a time, equal parts are
 * computed once. Gives the same values as the closures of compileTree, bit for bit.
 */
export function compileBlocks(
  tree: Tree,
  variable: string,
  slots: ReadonlyMap<string, number>,
): BlockProgram {
  const input = new Float64Array(blockLength)
  const steps: Step[] = []
  const done = new Map<string, Operand>()

  const emit = (part: Tree): Operand => {
    const key = keyOf(part)
    const known = done.get(key)
    if (known) return known
    const operand = compileNode(part)
    done.set(key, operand)
    return operand
  }
  const fresh = () => ({ buffer: new Float64Array(blockLength) })
  const fixedAt = (value: number): Operand => ({
    buffer: new Float64Array(blockLength).fill(value),
    fixed: value,
  })

  const unary = (of: Operand, loop: UnaryLoop): Operand => {
    const out = fresh()
    if (of.fixed !== undefined) {
      loop(of.buffer, out.buffer, 1)
      return fixedAt(out.buffer[0]!)
    }
    const a = of.buffer
    const b = out.buffer
    steps.push((count) => loop(a, b, count))
    return out
  }
  const binary = (u: Operand, v: Operand, loop: BinaryLoop): Operand => {
    const out = fresh()
    if (u.fixed !== undefined && v.fixed !== undefined) {
      loop(u.buffer, v.buffer, out.buffer, 1)
      return fixedAt(out.buffer[0]!)
    }
    const a = u.buffer
    const b = v.buffer
    const c = out.buffer
    steps.push((count) => loop(a, b, c, count))
    return out
  }
  /** One operand is the same number for all x: it stays in a register. */
  const addFixed = (of: Operand, number: number): Operand => {
    const out = fresh()
    const a = of.buffer
    const b = out.buffer
    steps.push((count) => shift(a, b, count, number))
    return out
  }
  const scaleFixed = (of: Operand, number: number): Operand => {
    const out = fresh()
    const a = of.buffer
    const b = out.buffer
    steps.push((count) => scale(a, b, count, number))
    return out
  }
  const add = (u: Operand, v: Operand): Operand => {
    if (u.fixed !== undefined && v.fixed === undefined) return addFixed(v, u.fixed)
    if (v.fixed !== undefined && u.fixed === undefined) return addFixed(u, v.fixed)
    return binary(u, v, addLoop)
  }
  const multiply = (u: Operand, v: Operand): Operand => {
    if (u.fixed !== undefined && v.fixed === undefined) return scaleFixed(v, u.fixed)
    if (v.fixed !== undefined && u.fixed === undefined) return scaleFixed(u, v.fixed)
    return binary(u, v, multiplyLoop)
  }
  const divide = (u: Operand, v: Operand): Operand => {
    const { fixed } = v
    if (fixed === undefined || fixed === 0 || u.fixed !== undefined) return binary(u, v, divideLoop)
    const out = fresh()
    const a = u.buffer
    const b = out.buffer
    steps.push((count) => shrink(a, b, count, fixed))
    return out
  }
  /**
   * The sum so far and one more term. A term k·v or u·v is multiplied and added in one pass: the
   * same operations in the same order, without a buffer between.
   */
  const accumulate = (total: Operand, term: Tree): Operand => {
    const parts = total.fixed === undefined ? fusedParts(term) : null
    if (!parts || done.has(keyOf(term))) return add(total, emit(term))
    const out = fresh()
    const [t, c] = [total.buffer, out.buffer]
    const v = emit(parts.right)
    const a = v.buffer
    if (parts.left === null) {
      steps.push((count) => addScaled(t, a, c, count, parts.factor))
      return out
    }
    const b = emit(parts.left).buffer
    const loop = parts.factor < 0 ? subtractProduct : addProduct
    steps.push((count) => loop(t, b, a, c, count))
    return out
  }

  const compileNode = (part: Tree): Operand => {
    switch (part.kind) {
      case 'number':
        return fixedAt(toNumber(part.exact))
      case 'constant':
        return fixedAt(part.name === 'pi' ? Math.PI : Math.E)
      case 'name': {
        if (part.name === variable) return { buffer: input }
        const out = fresh()
        const slot = slots.get(part.name)!
        steps.push((count, p) => out.buffer.fill(p[slot]!, 0, count))
        return out
      }
      case 'sum':
        return part.terms.slice(1).reduce(accumulate, emit(part.terms[0]!))
      case 'product':
        return part.factors.map(emit).reduce(multiply)
      case 'quotient':
        return divide(emit(part.above), emit(part.below))
      case 'power': {
        const fraction = literalFraction(part.exponent)
        if (fraction) return unary(emit(part.base), loopOver(rootPower(fraction)))
        if (part.base.kind === 'constant' && part.base.name === 'e') {
          return unary(emit(part.exponent), loopOf('exp'))
        }
        if (part.exponent.kind === 'number') {
          const fixed = toNumber(part.exponent.exact)
          const base = emit(part.base)
          if (fixed === 2) return multiply(base, base)
          return unary(
            base,
            loopOver((x) => realPower(x, fixed)),
          )
        }
        return binary(emit(part.base), emit(part.exponent), loopOverPairs(realPower))
      }
      case 'call': {
        const args = part.args.map(emit)
        if (part.name === 'logBase') return binary(args[0]!, args[1]!, loopOverPairs(logToBase))
        if (part.name === 'min') return args.reduce((u, v) => binary(u, v, loopOverPairs(Math.min)))
        if (part.name === 'max') return args.reduce((u, v) => binary(u, v, loopOverPairs(Math.max)))
        return unary(args[0]!, loopOf(part.name))
      }
      case 'curve':
        throw new TypeError(`the curve ${part.name} must be expanded before compiling`)
      case 'pieces': {
        // Every piece runs over the whole block; the first whose condition holds is kept.
        const all = part.pieces.map(({ body, when }) => ({
          body: emit(body).buffer,
          when: when && emitCondition(when),
        }))
        const out = fresh()
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
    }
  }

  const emitCondition = (condition: Condition): ((i: number) => boolean) => {
    if (condition.kind !== 'compare') {
      const parts = condition.of.map(emitCondition)
      return condition.kind === 'all'
        ? (i) => parts.every((part) => part(i))
        : (i) => parts.some((part) => part(i))
    }
    const terms = condition.terms.map((t) => emit(t).buffer)
    const relations: readonly Relation[] = condition.relations
    return (i) =>
      relations.every((relation, k) => holds(relation, terms[k]![i]!, terms[k + 1]![i]!))
  }

  const result = emit(tree).buffer
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

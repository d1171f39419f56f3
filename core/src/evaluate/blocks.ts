import { elementary, logToBase } from '../functions/table'
import { toNumber } from '../language/rational'
import { type Condition, keyOf, literalFraction, type Relation, type Tree } from '../language/tree'
import { realPower, rootPower } from './realPower'
import { holds } from './relations'

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

  const unary = (of: Operand, apply: (x: number) => number): Operand => {
    if (of.fixed !== undefined) return fixedAt(apply(of.fixed))
    const out = fresh()
    const a = of.buffer
    const b = out.buffer
    steps.push((count) => {
      for (let i = 0; i < count; i++) b[i] = apply(a[i]!)
    })
    return out
  }
  const binary = (u: Operand, v: Operand, apply: (a: number, b: number) => number): Operand => {
    if (u.fixed !== undefined && v.fixed !== undefined) return fixedAt(apply(u.fixed, v.fixed))
    const out = fresh()
    const a = u.buffer
    const b = v.buffer
    const c = out.buffer
    steps.push((count) => {
      for (let i = 0; i < count; i++) c[i] = apply(a[i]!, b[i]!)
    })
    return out
  }
  // Sums, products and quotients are written out: a call per value would cost more than the sum.
  const add = (u: Operand, v: Operand): Operand => {
    if (u.fixed !== undefined && v.fixed !== undefined) return fixedAt(u.fixed + v.fixed)
    const out = fresh()
    const a = u.buffer
    const b = v.buffer
    const c = out.buffer
    steps.push((count) => {
      for (let i = 0; i < count; i++) c[i] = a[i]! + b[i]!
    })
    return out
  }
  const multiply = (u: Operand, v: Operand): Operand => {
    if (u.fixed !== undefined && v.fixed !== undefined) return fixedAt(u.fixed * v.fixed)
    const out = fresh()
    const a = u.buffer
    const b = v.buffer
    const c = out.buffer
    steps.push((count) => {
      for (let i = 0; i < count; i++) c[i] = a[i]! * b[i]!
    })
    return out
  }
  const divide = (u: Operand, v: Operand): Operand => {
    const out = fresh()
    const a = u.buffer
    const b = v.buffer
    const c = out.buffer
    steps.push((count) => {
      for (let i = 0; i < count; i++) c[i] = b[i] === 0 ? NaN : a[i]! / b[i]!
    })
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
        return part.terms.map(emit).reduce(add)
      case 'product':
        return part.factors.map(emit).reduce(multiply)
      case 'quotient':
        return divide(emit(part.above), emit(part.below))
      case 'power': {
        const fraction = literalFraction(part.exponent)
        if (fraction) return unary(emit(part.base), rootPower(fraction))
        if (part.base.kind === 'constant' && part.base.name === 'e') {
          return unary(emit(part.exponent), Math.exp)
        }
        if (part.exponent.kind === 'number') {
          const fixed = toNumber(part.exponent.exact)
          const base = emit(part.base)
          return fixed === 2 ? multiply(base, base) : unary(base, (x) => realPower(x, fixed))
        }
        return binary(emit(part.base), emit(part.exponent), realPower)
      }
      case 'call': {
        const args = part.args.map(emit)
        if (part.name === 'logBase') return binary(args[0]!, args[1]!, logToBase)
        if (part.name === 'min') return args.reduce((u, v) => binary(u, v, Math.min))
        if (part.name === 'max') return args.reduce((u, v) => binary(u, v, Math.max))
        return unary(args[0]!, elementary[part.name].value)
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
      for (let i = 0; i < count; i++) input[i] = xs[start + i]!
      for (const step of steps) step(count, p)
      for (let i = 0; i < count; i++) out[start + i] = result[i]!
    }
  }
}

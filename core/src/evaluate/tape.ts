import {
  type AddingLoop,
  addLoop,
  addScaled,
  type BinaryLoop,
  divideLoop,
  multiplyLoop,
  scale,
  shift,
  shrink,
  type UnaryLoop,
} from './loops'

/** Values handled at once: small enough that all buffers of a usual formula stay in the cache. */
export const blockLength = 256

export type Step = (count: number, p: Float64Array) => void

/** What an operation works on: the values of a part of the formula at one block of x. */
export interface Operand {
  buffer: Float64Array
  /** Set where the operand is one number for all x and all sliders. */
  fixed?: number
}

/** The operations of a formula in the order in which they run over a block of x. */
export class Tape {
  readonly input = new Float64Array(blockLength)
  readonly steps: Step[] = []

  fresh(): Operand {
    return { buffer: new Float64Array(blockLength) }
  }

  fixedAt(value: number): Operand {
    return { buffer: new Float64Array(blockLength).fill(value), fixed: value }
  }

  unary(of: Operand, loop: UnaryLoop): Operand {
    const out = this.fresh()
    if (of.fixed !== undefined) {
      loop(of.buffer, out.buffer, 1)
      return this.fixedAt(out.buffer[0]!)
    }
    const a = of.buffer
    const b = out.buffer
    this.steps.push((count) => loop(a, b, count))
    return out
  }

  binary(u: Operand, v: Operand, loop: BinaryLoop): Operand {
    const out = this.fresh()
    if (u.fixed !== undefined && v.fixed !== undefined) {
      loop(u.buffer, v.buffer, out.buffer, 1)
      return this.fixedAt(out.buffer[0]!)
    }
    const a = u.buffer
    const b = v.buffer
    const c = out.buffer
    this.steps.push((count) => loop(a, b, c, count))
    return out
  }

  add(u: Operand, v: Operand): Operand {
    if (u.fixed !== undefined && v.fixed === undefined) return this.addFixed(v, u.fixed)
    if (v.fixed !== undefined && u.fixed === undefined) return this.addFixed(u, v.fixed)
    return this.binary(u, v, addLoop)
  }

  multiply(u: Operand, v: Operand): Operand {
    if (u.fixed !== undefined && v.fixed === undefined) return this.scaleFixed(v, u.fixed)
    if (v.fixed !== undefined && u.fixed === undefined) return this.scaleFixed(u, v.fixed)
    return this.binary(u, v, multiplyLoop)
  }

  divide(u: Operand, v: Operand): Operand {
    const { fixed } = v
    return fixed === undefined || fixed === 0 || u.fixed !== undefined
      ? this.binary(u, v, divideLoop)
      : this.divideFixed(u, fixed)
  }

  /** A part over a number that is not 0. */
  divideFixed(u: Operand, number: number): Operand {
    const out = this.fresh()
    const a = u.buffer
    const b = out.buffer
    this.steps.push((count) => shrink(a, b, count, number))
    return out
  }

  /** A sum so far and factor·v, in one pass: the same operations in the same order. */
  addMultiple(total: Operand, v: Operand, factor: number): Operand {
    const out = this.fresh()
    const [t, a, c] = [total.buffer, v.buffer, out.buffer]
    this.steps.push((count) => addScaled(t, a, c, count, factor))
    return out
  }

  /** A sum so far and ±u·v or ±u/v, in one pass. */
  addPair(total: Operand, u: Operand, v: Operand, loop: AddingLoop, sign: 1 | -1): Operand {
    const out = this.fresh()
    const [t, a, b, c] = [total.buffer, u.buffer, v.buffer, out.buffer]
    this.steps.push((count) => loop(t, a, b, c, count, sign))
    return out
  }

  /** One operand is the same number for all x: it stays in a register. */
  private addFixed(of: Operand, number: number): Operand {
    const out = this.fresh()
    const a = of.buffer
    const b = out.buffer
    this.steps.push((count) => shift(a, b, count, number))
    return out
  }

  private scaleFixed(of: Operand, number: number): Operand {
    const out = this.fresh()
    const a = of.buffer
    const b = out.buffer
    this.steps.push((count) => scale(a, b, count, number))
    return out
  }
}

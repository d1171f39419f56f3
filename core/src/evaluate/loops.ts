import { entryOf, type FunctionName } from '../functions'
import { type Around, plainly } from '../functions/entry'

export type UnaryLoop = (a: Float64Array, out: Float64Array, count: number) => void

export type BinaryLoop = (
  a: Float64Array,
  b: Float64Array,
  out: Float64Array,
  count: number,
) => void

/*
 * A call through a variable costs more than most operations it could make, so the operations a
 * formula is mostly made of have a loop of their own, in which the engine knows what is called. Four
 * values go in one round: the round costs more than the operation. Blocks are a multiple of four
 * long, so what is worked out beyond the count lies in the block and is not read.
 */
export const addLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i += 4) {
    out[i] = a[i]! + b[i]!
    out[i + 1] = a[i + 1]! + b[i + 1]!
    out[i + 2] = a[i + 2]! + b[i + 2]!
    out[i + 3] = a[i + 3]! + b[i + 3]!
  }
}

export const multiplyLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i += 4) {
    out[i] = a[i]! * b[i]!
    out[i + 1] = a[i + 1]! * b[i + 1]!
    out[i + 2] = a[i + 2]! * b[i + 2]!
    out[i + 3] = a[i + 3]! * b[i + 3]!
  }
}

export const divideLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i += 4) {
    const p = b[i]!
    const q = b[i + 1]!
    const r = b[i + 2]!
    const s = b[i + 3]!
    out[i] = a[i]! / p
    out[i + 1] = a[i + 1]! / q
    out[i + 2] = a[i + 2]! / r
    out[i + 3] = a[i + 3]! / s
    if (mayHold0(p * q * r * s)) noQuotients(b, -0, out, i)
  }
}

/**
 * Over 0 there is no value, and one question does for four denominators: their product is 0, or no number
 * where beside the 0 one is none or has no bounds.
 */
const mayHold0 = (product: number) => !(product > 0 || product < 0)

/** Over a number and b, where that is 0; the product of four may be 0 where none of them is. */
function noQuotients(b: Float64Array, more: number, out: Float64Array, from: number) {
  for (let i = from; i < from + 4; i++) if (more + b[i]! === 0) out[i] = NaN
}

export const cubeLoop: UnaryLoop = (a, out, count) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! * a[i]! * a[i]!
}

export const shift = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i += 4) {
    out[i] = a[i]! + by
    out[i + 1] = a[i + 1]! + by
    out[i + 2] = a[i + 2]! + by
    out[i + 3] = a[i + 3]! + by
  }
}

export const scale = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i += 4) {
    out[i] = a[i]! * by
    out[i + 1] = a[i + 1]! * by
    out[i + 2] = a[i + 2]! * by
    out[i + 3] = a[i + 3]! * by
  }
}

export const shrink = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! / by
}

export const addScaled = (
  total: Float64Array,
  a: Float64Array,
  out: Float64Array,
  count: number,
  by: number,
) => {
  for (let i = 0; i < count; i += 4) {
    out[i] = total[i]! + by * a[i]!
    out[i + 1] = total[i + 1]! + by * a[i + 1]!
    out[i + 2] = total[i + 2]! + by * a[i + 2]!
    out[i + 3] = total[i + 3]! + by * a[i + 3]!
  }
}

/** A sum so far and a product or quotient of two parts, its sign turned where that is -1. */
export type AddingLoop = (
  total: Float64Array,
  a: Float64Array,
  b: Float64Array,
  out: Float64Array,
  count: number,
  sign: 1 | -1,
) => void

export const addProduct: AddingLoop = (total, a, b, out, count, sign) => {
  for (let i = 0; i < count; i += 4) {
    out[i] = total[i]! + sign * a[i]! * b[i]!
    out[i + 1] = total[i + 1]! + sign * a[i + 1]! * b[i + 1]!
    out[i + 2] = total[i + 2]! + sign * a[i + 2]! * b[i + 2]!
    out[i + 3] = total[i + 3]! + sign * a[i + 3]! * b[i + 3]!
  }
}

/** The quotient's denominator is b and a number; -0 where nothing is added to it. */
export const addQuotient =
  (more: number): AddingLoop =>
  (total, a, b, out, count, sign) => {
    for (let i = 0; i < count; i += 4) {
      const p = more + b[i]!
      const q = more + b[i + 1]!
      const r = more + b[i + 2]!
      const s = more + b[i + 3]!
      out[i] = total[i]! + (sign * a[i]!) / p
      out[i + 1] = total[i + 1]! + (sign * a[i + 1]!) / q
      out[i + 2] = total[i + 2]! + (sign * a[i + 2]!) / r
      out[i + 3] = total[i + 3]! + (sign * a[i + 3]!) / s
      if (mayHold0(p * q * r * s)) noQuotients(b, more, out, i)
    }
  }

export const loopOver =
  (apply: (x: number) => number): UnaryLoop =>
  (a, out, count) => {
    for (let i = 0; i < count; i++) out[i] = apply(a[i]!)
  }

/** The loop of a function, with what is done around it in the same pass. */
export const loopOf = (name: FunctionName, around: Around = plainly): UnaryLoop => {
  const { loop, value } = entryOf(name)
  if (loop) return (a, out, count) => loop(a, out, count, around)
  const { scale: by, over, factor, shift: more } = around
  return loopOver((x) => more + factor * value((by * x) / over))
}

export const loopOverPairs =
  (apply: (x: number, y: number) => number): BinaryLoop =>
  (a, b, out, count) => {
    for (let i = 0; i < count; i++) out[i] = apply(a[i]!, b[i]!)
  }

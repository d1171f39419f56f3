import { entryOf, type FunctionName } from '../functions'

export type UnaryLoop = (a: Float64Array, out: Float64Array, count: number) => void

export type BinaryLoop = (
  a: Float64Array,
  b: Float64Array,
  out: Float64Array,
  count: number,
) => void

/*
 * A call through a variable costs more than most operations it could make, so the operations a
 * formula is mostly made of have a loop of their own, in which the engine knows what is called.
 */
export const addLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! + b[i]!
}

export const multiplyLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! * b[i]!
}

export const divideLoop: BinaryLoop = (a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = b[i] === 0 ? NaN : a[i]! / b[i]!
}

export const shift = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! + by
}

export const scale = (a: Float64Array, out: Float64Array, count: number, by: number) => {
  for (let i = 0; i < count; i++) out[i] = a[i]! * by
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
  for (let i = 0; i < count; i++) out[i] = total[i]! + by * a[i]!
}

type ProductLoop = (
  total: Float64Array,
  a: Float64Array,
  b: Float64Array,
  out: Float64Array,
  count: number,
) => void

export const addProduct: ProductLoop = (total, a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = total[i]! + a[i]! * b[i]!
}

export const subtractProduct: ProductLoop = (total, a, b, out, count) => {
  for (let i = 0; i < count; i++) out[i] = total[i]! - a[i]! * b[i]!
}

export const loopOver =
  (apply: (x: number) => number): UnaryLoop =>
  (a, out, count) => {
    for (let i = 0; i < count; i++) out[i] = apply(a[i]!)
  }

export const loopOf = (name: FunctionName): UnaryLoop => {
  const { loop, value } = entryOf(name)
  return loop ?? loopOver(value)
}

export const loopOverPairs =
  (apply: (x: number, y: number) => number): BinaryLoop =>
  (a, b, out, count) => {
    for (let i = 0; i < count; i++) out[i] = apply(a[i]!, b[i]!)
  }

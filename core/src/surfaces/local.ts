import * as I from '../arithmetic/intervals'
import { type Interval } from '../arithmetic/intervals'
import type { RealSurface, Rectangle } from './surface'

/** Pieces a side into which the neighbourhood is cut, so that the bound is narrower. */
const pieces = 6

/**
 * How far a surface can be from its Taylor polynomial of an order at (a, b) on the square of half-side
 * r around it, at the most: Lagrange's remainder with the partial derivatives of the next order
 * enclosed on the square. null where these are not known to be there on all of it.
 */
export function remainderBound(
  f: RealSurface,
  a: number,
  b: number,
  r: number,
  order: 1 | 2,
): number | null {
  const next = order + 1
  const square: Rectangle = { x: around(a, r), y: around(b, r) }
  let total = I.zeroInterval
  for (let i = 0; i <= next; i++) {
    const most = mostOf(f.partial(next - i, i), square)
    if (most === null) return null
    total = I.add(total, I.scale(I.point(most), binomial(next, i)))
  }
  const reach = I.wholePower(I.point(r), next)
  const bound = I.divide(I.multiply(total, reach), I.point(order === 1 ? 2 : 6)).hi
  return Number.isFinite(bound) ? bound : null
}

const around = (m: number, r: number): Interval => ({ lo: I.down(m - r), hi: I.up(m + r) })

const binomial = (n: number, k: number) => (k === 0 || k === n ? 1 : n)

/** A bound for the absolute value on a square; null where it may be missing somewhere. */
function mostOf(g: RealSurface, { x, y }: Rectangle): number | null {
  let most = 0
  const cut = ({ lo, hi }: Interval, i: number) =>
    i === pieces ? hi : lo + ((hi - lo) * i) / pieces
  for (let i = 0; i < pieces; i++) {
    for (let j = 0; j < pieces; j++) {
      const notes = I.noNotes()
      const box = {
        x: { lo: cut(x, i), hi: cut(x, i + 1) },
        y: { lo: cut(y, j), hi: cut(y, j + 1) },
      }
      const range = g.enclose(box, notes)
      if (notes.partial || notes.empty || notes.jumps || notes.kinks) return null
      most = Math.max(most, I.magnitudes(range).hi)
    }
  }
  return most
}

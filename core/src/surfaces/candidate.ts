import { simplify } from '../algebra/simplify'
import { toNumber } from '../arithmetic/rational'
import { type Interval } from '../arithmetic/intervals'
import { numberInterval } from '../evaluate/enclosures'
import { exactRational } from '../evaluate/exactRational'
import { exactly, keyOf } from '../formula/tree'
import { atPlace, type Place, tidyMiddle, treeAt } from './commonZeros'
import type { RealSurface, Rectangle } from './surface'

/** A place at which a surface may be highest or lowest on a rectangle. */
export interface Candidate {
  x: number
  y: number
  z: number
  /** Surely holds the height there. */
  height: Interval
  /** Its coordinates, where they are known to be these fractions. */
  exact: Place | null
  /** The height as an exact formula, where the place is exact: the same text means the same height. */
  key: string | null
  /** The height is the fraction that z is the double of. */
  isFraction: boolean
  where: 'inside' | 'edge' | 'corner'
  /** It lies on the curve of critical points, as far as its digits go: all along a piece of that f has one value. */
  onCurve: boolean
}

/** The height at a place: as a fraction where arithmetic gives one, else enclosed. */
export function candidateOf(
  f: RealSurface,
  at: Rectangle,
  exact: Candidate['exact'],
): Omit<Candidate, 'where' | 'onCurve'> {
  const [x, y] = exact ? exact.map(toNumber) : [tidyMiddle(at.x), tidyMiddle(at.y)]
  const place = { x: x!, y: y!, exact }
  const tree = exact && simplify(treeAt(f, exact))
  const fraction = tree && exactRational(tree)
  if (fraction) {
    const height = numberInterval(fraction)
    return {
      ...place,
      z: toNumber(fraction),
      height,
      key: keyOf(exactly(fraction)),
      isFraction: true,
    }
  }
  const height = f.enclose(exact ? atPlace(exact) : at)
  return { ...place, z: f.value(x!, y!), height, key: tree && keyOf(tree), isFraction: false }
}

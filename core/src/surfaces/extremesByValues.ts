import * as I from '../arithmetic/intervals'
import { type Interval } from '../arithmetic/intervals'
import { decimalOfNumber, toNumber } from '../arithmetic/rational'
import { boxCost, type Steps } from '../features/budget'
import { type Candidate, candidateOf } from './candidate'
import { clusters, halves, type Place, roundMiddle, roundPlace } from './commonZeros'
import { plainRange, type RealSurface, type Rectangle } from './surface'

/** What the search may cost, in boxes of a short formula. */
const mostBoxes = 8000
/** So many boxes that may all hold the value lie along a line. */
const mostWaiting = 400
/** A part this small beside its coordinates is not cut any more. */
const smallest = 1e-11
/** The value is told where it is known to this share of it. */
const closeEnough = 1e-9

export interface ExtremeByValues {
  places: Candidate[]
  /** There are more places than can be listed: those are some. */
  areMany: boolean
}

interface Box {
  at: Rectangle
  range: Interval
}

/**
 * The least value of a function that is continuous on a closed rectangle (sign 1) or the greatest one
 * (sign −1), and where it is taken: branch and bound on the values alone, so that folds do not matter.
 * The value is a fraction where one is taken at a round place and no enclosure lies below it. null
 * where the function may jump or lack values, or where the bounds do not come close enough.
 */
export function* extremeByValues(
  f: RealSurface,
  within: Rectangle,
  sign: 1 | -1,
): Steps<ExtremeByValues | null> {
  const cost = boxCost(f.tree)
  const first = boxOf(f, within, sign)
  if (!first) return null
  let best = bestOf(f, cornersOf(within), sign, { place: null, z: Infinity, hi: Infinity })
  const waiting: Box[] = [first]
  const small: Box[] = []
  for (let spent = 0; waiting.length > 0 && waiting.length <= mostWaiting; spent += cost) {
    if (spent > mostBoxes) return null
    yield Math.min(1, spent / mostBoxes)
    const next = waiting.reduce((a, b, i) => (b.range.lo < waiting[a]!.range.lo ? i : a), 0)
    const [box] = waiting.splice(next, 1) as [Box]
    if (box.range.lo > best.hi) break
    if (isTiny(box.at)) {
      small.push(box)
      best = bestOf(f, placesIn(box.at), sign, best)
      continue
    }
    for (const half of halves(box.at, within)) {
      const part = boxOf(f, half, sign)
      if (!part) return null
      best = bestOf(f, cornersOf(half), sign, best)
      if (part.range.lo <= best.hi) waiting.push(part)
    }
  }
  if (!best.place) return null
  const rest = [...small, ...waiting].filter(({ range }) => range.lo <= best.hi)
  const [px, py] = best.place.map((value) => I.point(toNumber(value))) as [Interval, Interval]
  const known = candidateOf(f, { x: px, y: py }, best.place)
  const top = seen(known.height, sign).hi
  const bottom = Math.min(top, ...rest.map(({ range }) => range.lo))
  const isLeast = known.isFraction && bottom >= top
  const areMany = waiting.length > mostWaiting
  const gap = top - bottom
  if (!isLeast && (areMany || gap > closeEnough * Math.max(1, Math.abs(known.z)))) return null
  const alone: Candidate = { ...known, where: 'inside', onCurve: false }
  if (areMany) return { places: [alone], areMany }
  const around = clusters(rest.map(({ at }) => at))
  const places = around.map((at): Candidate => {
    const found = candidateOf(f, at, roundPlace(at))
    const isSame = isLeast && found.key === known.key
    const { height, z } = found
    const rounded = { x: roundMiddle(at.x), y: roundMiddle(at.y), exact: null, key: null }
    const one = isSame ? found : { ...rounded, height, z, isFraction: false }
    return { ...one, where: whereIs(at, within), onCurve: false }
  })
  return { places: places.length > 0 ? places : [alone], areMany }
}

const flipped = ({ lo, hi }: Interval): Interval => ({ lo: -hi, hi: -lo })
const seen = (range: Interval, sign: 1 | -1) => (sign === 1 ? range : flipped(range))

/** A part of the rectangle with its values; null where they may jump or be missing. */
function boxOf(f: RealSurface, at: Rectangle, sign: 1 | -1): Box | null {
  const notes = I.noNotes()
  plainRange(f, at, notes)
  if (notes.partial || notes.empty || notes.jumps) return null
  return { at, range: seen(f.enclose(at), sign) }
}

const cornersOf = ({ x, y }: Rectangle): Place[] =>
  [x.lo, x.hi].flatMap((px) =>
    [y.lo, y.hi].map((py) => [decimalOfNumber(px), decimalOfNumber(py)] as const),
  )

/** The round place in a small part, where it has one. */
const placesIn = (at: Rectangle): Place[] => {
  const place = roundPlace(at)
  return place ? [place] : []
}

const isTiny = ({ x, y }: Rectangle) =>
  [x, y].every(
    (side) => I.width(side) < smallest * Math.max(1, Math.abs(side.lo), Math.abs(side.hi)),
  )

/** The least value found so far, times the sign, and what it surely does not exceed. */
interface Best {
  place: Place | null
  z: number
  hi: number
}

/** The best of what is known and some places. */
function bestOf(f: RealSurface, places: readonly Place[], sign: 1 | -1, known: Best): Best {
  let best = known
  for (const place of places) {
    const [px, py] = place.map(toNumber) as [number, number]
    const z = sign * f.value(px, py)
    if (!Number.isFinite(z) || z >= best.z) continue
    best = { place, z, hi: seen(f.enclose({ x: I.point(px), y: I.point(py) }), sign).hi }
  }
  return best
}

function whereIs({ x, y }: Rectangle, within: Rectangle): Candidate['where'] {
  const isOn = (side: Interval, whole: Interval) => side.lo <= whole.lo || side.hi >= whole.hi
  const count = Number(isOn(x, within.x)) + Number(isOn(y, within.y))
  return count === 2 ? 'corner' : count === 1 ? 'edge' : 'inside'
}

import type { Item } from './items'
import type { Stroke } from './sampleCurve'
import { textWidth } from './textWidth'

export interface Box {
  left: number
  right: number
  top: number
  bottom: number
}

/** A straight piece of a path. */
export type Segment = readonly [x0: number, y0: number, x1: number, y1: number]

/** What words keep off, in pixels of a lane. */
export interface Obstacles {
  /** Curves, each from left to right. */
  strokes: readonly Stroke[]
  /** Dots, rings and legs of slope triangles. */
  segments: readonly Segment[]
  /** Lines that words cross only where there is no other room, such as tangents. */
  lines: readonly Segment[]
  boxes: readonly Box[]
  /** How much larger than usual words are set. */
  type: number
}

export const noObstacles: Obstacles = { strokes: [], segments: [], lines: [], boxes: [], type: 1 }

const [above, below] = [12, 4]
/** Labels and the names of curves are set in these sizes, in pixels. */
const [labelSize, nameSize] = [13, 18]

type Label = Item & { kind: 'label' }

/** The room that the words of a label take, where words are set so much larger than usual. */
export const labelBox = (
  { x, y, text, anchor, named }: Pick<Label, 'x' | 'y' | 'text' | 'anchor' | 'named'>,
  type = 1,
): Box => {
  const grown = named ? (nameSize / labelSize) * type : type
  const width = textWidth(text) * grown + 2
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2
  return { left, right: left + width, top: y - above * grown, bottom: y + below * grown }
}

export const meet = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom

const wider = ({ left, right, top, bottom }: Box, by: number): Box => ({
  left: left - by,
  right: right + by,
  top: top - by,
  bottom: bottom + by,
})

/** Whether a straight piece comes into a box (Liang and Barsky's clipping). */
export function entersBox([x0, y0, x1, y1]: Segment, box: Box): boolean {
  let [from, to] = [0, 1]
  for (const [way, low, high] of [
    [x1 - x0, box.left - x0, box.right - x0],
    [y1 - y0, box.top - y0, box.bottom - y0],
  ] as const) {
    if (way === 0) {
      if (low > 0 || high < 0) return false
      continue
    }
    const [a, b] = way > 0 ? [low / way, high / way] : [high / way, low / way]
    from = Math.max(from, a)
    to = Math.min(to, b)
    if (from > to) return false
  }
  return true
}

/** Whether a stroke, points from left to right, comes into a box. */
function crosses(stroke: Stroke, box: Box): boolean {
  const count = stroke.length / 2
  // The first point that is not left of the box: only pieces from there on can come into it.
  let [low, high] = [0, count]
  while (low < high) {
    const middle = (low + high) >> 1
    if (stroke[2 * middle]! < box.left) low = middle + 1
    else high = middle
  }
  for (let i = Math.max(1, low); i < count; i++) {
    const x0 = stroke[2 * i - 2]!
    if (x0 > box.right) return false
    if (entersBox([x0, stroke[2 * i - 1]!, stroke[2 * i]!, stroke[2 * i + 1]!], box)) return true
  }
  return false
}

/** Half the width of what is drawn, and air, in pixels. */
const [halfLine, air] = [1.5, 1]

/** Whether words in a box cover nothing that is drawn; `lines` may be crossed where that is said. */
export const isClear = (box: Box, obstacles: Obstacles, mayCrossLines = false): boolean => {
  const room = wider(box, halfLine)
  return (
    !obstacles.boxes.some((other) => meet(box, other)) &&
    !obstacles.segments.some((segment) => entersBox(segment, room)) &&
    (mayCrossLines || !obstacles.lines.some((segment) => entersBox(segment, room))) &&
    !obstacles.strokes.some((stroke) => crosses(stroke, room))
  )
}

const number = String.raw`-?\d+(?:\.\d+)?(?:e-?\d+)?`
const command = new RegExp(`([MLHVZa])\\s*((?:${number}(?:[\\s,]+|(?=-)|$|(?=[A-Za-z])))*)`, 'g')

/** The straight pieces of a path of M, L, H, V and Z; an arc counts as the chord it spans. */
export function segmentsOf(d: string): Segment[] {
  const segments: Segment[] = []
  let [x, y, startX, startY] = [0, 0, 0, 0]
  const to = (nextX: number, nextY: number) => {
    segments.push([x, y, nextX, nextY])
    ;[x, y] = [nextX, nextY]
  }
  for (const [, letter, numbers = ''] of d.matchAll(command)) {
    const values = (numbers.match(new RegExp(number, 'g')) ?? []).map(Number)
    if (letter === 'M') [x, y, startX, startY] = [values[0]!, values[1]!, values[0]!, values[1]!]
    if (letter === 'L') for (let i = 0; i < values.length; i += 2) to(values[i]!, values[i + 1]!)
    if (letter === 'H') to(values[0]!, y)
    if (letter === 'V') to(x, values[0]!)
    if (letter === 'Z') to(startX, startY)
    if (letter === 'a') to(x + values[5]!, y + values[6]!)
  }
  return segments
}

/** Longer paths are pictures of their own, such as trails and strips: words may stand on them. */
const longest = 400

/**
 * What items of a lane are to words. A dotted path with a corner is a slope triangle, one without a
 * stem; what is short and closed is a dot.
 */
export function obstaclesOf(
  items: readonly Item[],
  strokes: readonly Stroke[],
  type = 1,
): Obstacles {
  const segments: Segment[] = []
  const lines: Segment[] = []
  const boxes: Box[] = []
  for (const item of items) {
    if (item.kind === 'dot') {
      const reach = item.reach + air
      const [left, right] = [item.x - reach, item.x + reach]
      boxes.push({ left, right, top: item.y - reach, bottom: item.y + reach })
    }
    if (item.kind === 'body') {
      const reach = item.reach + air
      const [left, right] = [item.cx - reach, item.cx + reach]
      boxes.push({ left, right, top: item.cy - reach, bottom: item.cy + reach })
    }
    if (item.kind === 'rect') {
      const { x, y, width, height } = item
      boxes.push({ left: x, right: x + width, top: y, bottom: y + height })
    }
    if (item.kind !== 'path' || item.layer === 'insides' || item.d.length > longest) continue
    const isLeg = item.dotted === true && item.d.includes('H')
    const isSolid = isLeg || item.d.includes('Z') || item.d.includes('a')
    const pieces = segmentsOf(item.d)
    if (isSolid) segments.push(...pieces)
    else lines.push(...pieces)
  }
  return { strokes, segments, lines, boxes, type }
}

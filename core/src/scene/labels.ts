import type { Item } from './items'
import { round, type Stroke } from './sampleCurve'
import { textWidth } from './textWidth'

interface Box {
  left: number
  right: number
  top: number
  bottom: number
}

type Label = Item & { kind: 'label' }
type Spot = Pick<Label, 'x' | 'y' | 'anchor'>

const [above, below] = [12, 4]

export const labelBox = ({
  x,
  y,
  text,
  anchor,
}: Pick<Label, 'x' | 'y' | 'text' | 'anchor'>): Box => {
  const width = textWidth(text) + 2
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2
  return { left, right: left + width, top: y - above, bottom: y + below }
}

const meet = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom

/** The straight legs of paths made of M, H and V, as thin boxes. */
function legsOf(d: string): Box[] {
  const match = /^M(\S+) (\S+?)(?:H(\S+?))?V(\S+)$/.exec(d)
  if (!match) return []
  const [x, y, top] = [Number(match[1]), Number(match[2]), Number(match[4])]
  const right = match[3] === undefined ? x : Number(match[3])
  const leg = (x0: number, y0: number, x1: number, y1: number): Box => ({
    left: Math.min(x0, x1) - 3,
    right: Math.max(x0, x1) + 3,
    top: Math.min(y0, y1) - 3,
    bottom: Math.max(y0, y1) + 3,
  })
  return right === x ? [leg(x, y, x, top)] : [leg(x, y, right, y), leg(right, y, right, top)]
}

/** Whether a stroke, points from left to right, comes into a box. */
function crosses(stroke: Stroke, box: Box): boolean {
  const count = stroke.length / 2
  // The first point that is not left of the box: only segments from there on can come into it.
  let [low, high] = [0, count]
  while (low < high) {
    const middle = (low + high) >> 1
    if (stroke[2 * middle]! < box.left) low = middle + 1
    else high = middle
  }
  for (let i = Math.max(1, low); i < count; i++) {
    const [x0, y0, x1, y1] = [
      stroke[2 * i - 2]!,
      stroke[2 * i - 1]!,
      stroke[2 * i]!,
      stroke[2 * i + 1]!,
    ]
    if (x0 > box.right) return false
    const at = (x: number) => (x1 === x0 ? y0 : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0))
    const [a, b] = [at(Math.max(x0, box.left)), at(Math.min(x1, box.right))]
    if (Math.max(a, b) >= box.top && Math.min(a, b) <= box.bottom) return true
  }
  return false
}

/** What stands at the edges of a lane: the numbers of its ticks, and how far its curve reaches. */
const [tickColumn, rangeWidth, rangeHeight] = [36, 156, 20]
const cornersOf = (width: number, height: number): Box[] => [
  { left: 0, right: tickColumn, top: 0, bottom: height },
  { left: width - rangeWidth, right: width, top: 0, bottom: rangeHeight },
]

/** Where a label may stand, from the point it belongs to: the near sides first, then further off. */
const sides: readonly (readonly [dx: number, dy: number, anchor: Label['anchor']])[] = [
  [12, 4, 'start'],
  [-10, 20, 'end'],
  [-10, -10, 'end'],
  [10, -12, 'start'],
  [10, 22, 'start'],
  [-12, 4, 'end'],
  [0, -14, 'middle'],
  [0, 26, 'middle'],
  ...[34, 58, 84].flatMap((far) =>
    (
      [
        [0.2, -1, 'start'],
        [-0.2, -1, 'end'],
        [0.2, 1, 'start'],
        [-0.2, 1, 'end'],
        [0.9, -0.5, 'start'],
        [-0.9, -0.5, 'end'],
        [0.9, 0.5, 'start'],
        [-0.9, 0.5, 'end'],
      ] as const
    ).map(([dx, dy, anchor]) => [dx * far, dy * far + 4, anchor] as const),
  ),
]

/** Labels that stand further from their point than this are tied to it by a line, in pixels. */
const leaderFrom = 26

/** Which side each label stood on last, so that it keeps to it while its point moves. */
export type LabelSides = Map<string, number>

/**
 * Gives each label that belongs to a point a side where it covers no other label, no leg of a slope
 * triangle and no curve; a label that someone has moved stands where it was put. Where nothing is
 * free a label of a moving place may cover the curve, and one of a feature is left out: its row
 * still has the numbers. What two lines say of one point stands there once. `last` is read and
 * written.
 */
export function placeLabels(
  items: readonly Item[],
  width: number,
  height: number,
  curves: readonly Stroke[] = [],
  last: LabelSides = new Map(),
): Item[] {
  const taken: Box[] = cornersOf(width, height)
  for (const item of items) {
    if (item.kind === 'path' && item.dotted) taken.push(...legsOf(item.d))
    if (item.kind !== 'label') continue
    if (!item.beside) taken.push(labelBox(item))
    else if (item.offset) taken.push(labelBox(movedTo(item)))
  }
  const told = new Set<string>()
  return items.flatMap((item): Item[] => {
    if (item.kind !== 'label' || !item.beside) return [item]
    if (item.offset) return withLeader(movedTo(item))
    const { x, y } = item.beside
    // Two lines may say the same of one point: once is enough.
    const words = `${item.text} ${Math.round(x)} ${Math.round(y)}`
    if (told.has(words)) return []
    told.add(words)
    const spots = sides.map(([dx, dy, anchor]): Spot => ({ x: x + dx, y: y + dy, anchor }))
    const isFree = (spot: Spot) => {
      const box = labelBox({ ...item, ...spot })
      const inside = box.left >= 0 && box.right <= width && box.top >= 0 && box.bottom <= height
      return inside && !taken.some((other) => meet(box, other))
    }
    const isClear = (spot: Spot) => {
      const box = labelBox({ ...item, ...spot })
      return isFree(spot) && !curves.some((stroke) => crosses(stroke, box))
    }
    const kept = last.get(item.key)
    let side = kept !== undefined && isClear(spots[kept]!) ? kept : spots.findIndex(isClear)
    if (side < 0) side = spots.findIndex(isFree)
    if (side < 0 && item.mayGo) return []
    side = Math.max(0, side)
    last.set(item.key, side)
    const placed = { ...item, ...spots[side]! }
    taken.push(labelBox(placed))
    return withLeader(placed)
  })
}

/** A label where someone has put it. */
const movedTo = (item: Label): Label => ({
  ...item,
  x: item.beside!.x + item.offset![0],
  y: item.beside!.y + item.offset![1],
  anchor: 'middle',
})

/** A label far from its point, with the line that ties it to it. */
function withLeader(label: Label): Item[] {
  const { beside } = label
  const box = labelBox(label)
  const rounded = { ...label, x: round(label.x), y: round(label.y) }
  const nearest = {
    x: Math.max(box.left, Math.min(box.right, beside!.x)),
    y: Math.max(box.top, Math.min(box.bottom, beside!.y)),
  }
  const away = Math.hypot(nearest.x - beside!.x, nearest.y - beside!.y)
  if (away < leaderFrom) return [rounded]
  const start = 7 / away
  const from = {
    x: beside!.x + (nearest.x - beside!.x) * start,
    y: beside!.y + (nearest.y - beside!.y) * start,
  }
  return [
    {
      kind: 'path',
      layer: label.layer,
      key: `${label.key}.leader`,
      d: `M${round(from.x)} ${round(from.y)}L${round(nearest.x)} ${round(nearest.y)}`,
      ink: label.ink,
      width: 1,
    },
    rounded,
  ]
}

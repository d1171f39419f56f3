import type { Item, Side } from './items'
import { type Box, isClear, labelBox, meet, noObstacles, type Obstacles } from './obstacles'
import { round } from './sampleCurve'

type Label = Item & { kind: 'label' }
type Spot = Pick<Label, 'x' | 'y' | 'anchor'>

/** The numbers of the ticks stand at the left edge of a lane. */
const tickColumn = 36

/** Where a label may stand, from the point it belongs to: the near sides first, then further off. */
const usualSides: readonly Side[] = [
  [12, 4, 'start'],
  [-10, 20, 'end'],
  [-10, -10, 'end'],
  [10, -12, 'start'],
  [10, 22, 'start'],
  [-12, 4, 'end'],
  [0, -14, 'middle'],
  [0, 26, 'middle'],
  [14, -4, 'start'],
  [-14, -4, 'end'],
  [14, 14, 'start'],
  [-14, 14, 'end'],
  [0, -22, 'middle'],
  [0, 34, 'middle'],
  [18, -20, 'start'],
  [-18, -20, 'end'],
  [18, 30, 'start'],
  [-18, 30, 'end'],
  ...[34, 58, 84].flatMap((far) =>
    (
      [
        [0, 1, 'middle'],
        [0, -1, 'middle'],
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
 * Gives each label that belongs to a point a side where it covers nothing: no curve, dot or leg of a
 * slope triangle and no other label, and no other line where it can be helped. A label that someone
 * has moved stands where it was put. Where there is no room a label is left out: its row still has
 * the numbers. What two lines say of one point stands there once. `last` is read and written.
 */
export function placeLabels(
  items: readonly Item[],
  width: number,
  height: number,
  obstacles: Obstacles = noObstacles,
  last: LabelSides = new Map(),
): Item[] {
  const taken: Box[] = [{ left: 0, right: tickColumn, top: 0, bottom: height }]
  for (const item of items) {
    if (item.kind !== 'label') continue
    if (!item.beside) taken.push(labelBox(item, obstacles.type))
    else if (item.offset) taken.push(labelBox(movedTo(item), obstacles.type))
  }
  const told = new Set<string>()
  return items.flatMap((item): Item[] => {
    if (item.kind !== 'label' || !item.beside) return [item]
    if (item.offset) return withLeader(movedTo(item), obstacles.type)
    const { x, y } = item.beside
    // Two lines may say the same of one point: once is enough.
    const words = `${item.text} ${Math.round(x)} ${Math.round(y)}`
    if (told.has(words)) return []
    told.add(words)
    const { sides = usualSides } = item
    const spots = sides.map(([dx, dy, anchor]): Spot => ({ x: x + dx, y: y + dy, anchor }))
    const fits = (spot: Spot, mayCrossLines: boolean) => {
      const box = labelBox({ ...item, ...spot }, obstacles.type)
      const inside = box.left >= 0 && box.right <= width && box.top >= 0 && box.bottom <= height
      return (
        inside && !taken.some((other) => meet(box, other)) && isClear(box, obstacles, mayCrossLines)
      )
    }
    const kept = last.get(item.key)
    let side = kept !== undefined && fits(spots[kept]!, true) ? kept : -1
    if (side < 0) side = spots.findIndex((spot) => fits(spot, false))
    if (side < 0) side = spots.findIndex((spot) => fits(spot, true))
    if (side < 0) return []
    last.set(item.key, side)
    const placed = { ...item, ...spots[side]! }
    taken.push(labelBox(placed, obstacles.type))
    return withLeader(placed, obstacles.type)
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
function withLeader(label: Label, type: number): Item[] {
  const { beside } = label
  const box = labelBox(label, type)
  const rounded = { ...label, x: round(label.x), y: round(label.y) }
  const nearest = {
    x: Math.max(box.left, Math.min(box.right, beside!.x)),
    y: Math.max(box.top, Math.min(box.bottom, beside!.y)),
  }
  const away = Math.hypot(nearest.x - beside!.x, nearest.y - beside!.y)
  if (label.sides || away < leaderFrom) return [rounded]
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

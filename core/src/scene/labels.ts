import type { Item } from './items'

interface Box {
  left: number
  right: number
  top: number
  bottom: number
}

type Label = Item & { kind: 'label' }

/** The width of a figure in the labels' type, in pixels; what is needed is no more than an estimate. */
const characterWidth = 7.2
const [above, below] = [12, 4]

const boxOf = ({ x, y, text, anchor }: Pick<Label, 'x' | 'y' | 'text' | 'anchor'>): Box => {
  const width = text.length * characterWidth
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2
  return { left, right: left + width, top: y - above, bottom: y + below }
}

const meet = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom

/** The straight legs of paths made of M, H and V, as thin boxes. */
function legsOf(d: string): Box[] {
  const match = /^M(\S+) (\S+)H(\S+)V(\S+)$/.exec(d)
  if (!match) return []
  const [x, y, right, top] = match.slice(1).map(Number) as [number, number, number, number]
  const leg = (x0: number, y0: number, x1: number, y1: number): Box => ({
    left: Math.min(x0, x1) - 3,
    right: Math.max(x0, x1) + 3,
    top: Math.min(y0, y1) - 3,
    bottom: Math.max(y0, y1) + 3,
  })
  return [leg(x, y, right, y), leg(right, y, right, top)]
}

/**
 * Moves the labels that stand beside a dot to a side where they cover no other label and no leg of
 * a slope triangle: right, left below, left above, right above, right below, in that order. Where
 * every side is taken the first is kept.
 */
export function placeLabels(items: readonly Item[], width: number, height: number): Item[] {
  const taken: Box[] = []
  for (const item of items) {
    if (item.kind === 'path' && item.dotted) taken.push(...legsOf(item.d))
    if (item.kind === 'label' && !item.beside) taken.push(boxOf(item))
  }
  return items.map((item) => {
    if (item.kind !== 'label' || !item.beside) return item
    const { x, y } = item.beside
    const sides: Pick<Label, 'x' | 'y' | 'anchor'>[] = [
      { x: x + 12, y: y + 4, anchor: 'start' },
      { x: x - 10, y: y + 20, anchor: 'end' },
      { x: x - 10, y: y - 10, anchor: 'end' },
      { x: x + 10, y: y - 12, anchor: 'start' },
      { x: x + 10, y: y + 22, anchor: 'start' },
    ]
    const free = sides.find((side) => {
      const box = boxOf({ ...item, ...side })
      const inside = box.left >= 0 && box.right <= width && box.top >= 0 && box.bottom <= height
      return inside && !taken.some((other) => meet(box, other))
    })
    const placed = { ...item, ...(free ?? sides[0]!) }
    taken.push(boxOf(placed))
    return placed
  })
}

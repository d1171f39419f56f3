import type { Item } from './items'
import type { LabelSides } from './labels'
import { type Box, isClear, labelBox, meet, type Obstacles } from './obstacles'
import { round, type Stroke } from './sampleCurve'

type Label = Item & { kind: 'label' }

/** A curve that is to be named. */
export interface Named {
  key: string
  text: string
  ink: Label['ink']
  strokes: readonly Stroke[]
}

/** Shares of the width at which a name may stand, the right end of the picture first. */
const shares = [0.93, 0.86, 0.79, 0.72, 0.65, 0.58, 0.51, 0.44, 0.37, 0.3, 0.23, 0.16, 0.1]
/** How far above or below its curve, in pixels, measured to the foot of the words. */
const heights = [-10, 20, -22, 32]
/** Names keep off the edges by this much, in pixels. */
const edge = 6

/** Where a stroke stands at x; null where it does not reach there. */
export function heightAt(strokes: readonly Stroke[], x: number): number | null {
  for (const stroke of strokes) {
    for (let i = 2; i < stroke.length; i += 2) {
      const [x0, y0, x1, y1] = [stroke[i - 2]!, stroke[i - 1]!, stroke[i]!, stroke[i + 1]!]
      if (x0 <= x && x <= x1) return x1 === x0 ? y0 : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0)
    }
  }
  return null
}

/**
 * The name of each curve beside it, in its colour, where it covers nothing and is nearer to its own
 * curve than to any other; a curve without such a place goes without. `last` is read and written, so
 * that a name stays while the picture moves.
 */
export function nameItems(
  named: readonly Named[],
  width: number,
  height: number,
  obstacles: Obstacles,
  last: LabelSides,
): Item[] {
  const taken: Box[] = []
  return named.flatMap((curve): Item[] => {
    const others = named.filter((other) => other !== curve)
    const at = (index: number): Label | null => {
      const x = shares[Math.floor(index / heights.length)]! * width
      const away = heights[index % heights.length]!
      const on = heightAt(curve.strokes, x)
      if (on === null || on < 0 || on > height) return null
      const label: Label = {
        kind: 'label',
        key: curve.key,
        layer: 'ground',
        x: round(x),
        y: round(on + away),
        text: curve.text,
        ink: curve.ink,
        anchor: 'middle',
        named: true,
      }
      const box = labelBox(label, obstacles.type)
      const middle = (box.top + box.bottom) / 2
      const isNearest = others.every(({ strokes }) => {
        const other = heightAt(strokes, x)
        return other === null || Math.abs(other - middle) > Math.abs(on - middle)
      })
      const isInside =
        box.left > edge && box.right < width - edge && box.top > edge && box.bottom < height - edge
      const isFree = !taken.some((other) => meet(box, other)) && isClear(box, obstacles)
      return isInside && isNearest && isFree ? label : null
    }
    const kept = last.get(curve.key)
    const all = Array.from({ length: shares.length * heights.length }, (_, i) => i)
    for (const index of kept === undefined ? all : [kept, ...all]) {
      const label = at(index)
      if (!label) continue
      last.set(curve.key, index)
      taken.push(labelBox(label, obstacles.type))
      return [label]
    }
    return []
  })
}

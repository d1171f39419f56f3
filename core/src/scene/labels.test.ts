import fc from 'fast-check'
import type { Item } from './items'
import { placeLabels } from './labels'
import { labelBox, noObstacles } from './obstacles'
import { textWidth } from './textWidth'

type Label = Item & { kind: 'label' }
const [width, height] = [800, 500]

const label = (key: string, x: number, y: number, more: Partial<Label> = {}): Label => ({
  kind: 'label',
  key,
  layer: 'marks',
  x,
  y,
  text: 'high 9.490 at t = 1.653',
  ink: 'span',
  anchor: 'start',
  beside: { x, y },
  ...more,
})
const labelsOf = (items: readonly Item[]) => items.filter((i): i is Label => i.kind === 'label')
const overlap = (a: Label, b: Label) => {
  const [p, q] = [labelBox(a), labelBox(b)]
  return p.left < q.right && q.left < p.right && p.top < q.bottom && q.top < p.bottom
}
/** A wave in pixels, from left to right. */
const wave = (middle: number, high: number, length: number) =>
  Array.from({ length: 201 }, (_, i) => [4 * i, middle + high * Math.sin((4 * i) / length)]).flat()

describe('labels beside points', () => {
  const points = fc.array(
    fc.record({ x: fc.integer({ min: 0, max: width }), y: fc.integer({ min: 0, max: height }) }),
    { minLength: 1, maxLength: 30 },
  )

  test('no two cover each other and all stand inside, however crowded the points are', () => {
    fc.assert(
      fc.property(points, (all) => {
        const placed = labelsOf(
          placeLabels(
            all.map(({ x, y }, i) => label(`l${i}`, x, y)),
            width,
            height,
          ),
        )
        for (const [i, one] of placed.entries()) {
          const box = labelBox(one)
          expect(box.left).toBeGreaterThanOrEqual(-0.01)
          expect(box.right).toBeLessThanOrEqual(width + 0.01)
          expect(box.top).toBeGreaterThanOrEqual(-0.01)
          expect(box.bottom).toBeLessThanOrEqual(height + 0.01)
          for (const other of placed.slice(i + 1)) expect(overlap(one, other)).toBe(false)
        }
        expect(placed.length).toBeGreaterThan(0)
      }),
      { numRuns: 200 },
    )
  })

  test('none of them covers the curve where there is room beside it', () => {
    const stroke = wave(250, 120, 60)
    const crests = [94.2, 282.7, 471.2, 659.7].map((x, i) =>
      label(`l${i}`, x, 250 + (i % 2 === 0 ? 120 : -120)),
    )
    const placed = labelsOf(
      placeLabels(crests, width, height, { ...noObstacles, strokes: [stroke] }),
    )
    expect(placed).toHaveLength(4)
    for (const one of placed) {
      const box = labelBox(one)
      for (let i = 0; i < stroke.length; i += 2) {
        const [x, y] = [stroke[i]!, stroke[i + 1]!]
        const covered = x > box.left && x < box.right && y > box.top && y < box.bottom
        expect(covered).toBe(false)
      }
    }
  })

  test('where nothing is free a point goes without words', () => {
    const many = Array.from({ length: 60 }, (_, i) => ({
      ...label(`l${i}`, 400, 250, { x: 400 + i / 9 }),
      text: `high 9.490 at t = 1.${100 + i}`,
    }))
    expect(labelsOf(placeLabels(many, width, height)).length).toBeLessThan(60)
  })

  test('a label stays on its side while its point moves and that side is free', () => {
    const last = new Map<string, number>()
    const obstacle = label('o', 430, 250, { text: 'in the way of the right side' })
    const { beside: _, ...fixed } = obstacle
    const side = (items: Item[]) => {
      const one = labelsOf(placeLabels(items, width, height, noObstacles, last)).find(
        (l) => l.key === 'l',
      )!
      return [one.x - one.beside!.x, one.y - one.beside!.y, one.anchor]
    }
    const pushed = side([fixed, label('l', 400, 250)])
    const freed = side([label('l', 402, 250)])
    expect(pushed).not.toEqual([12, 4, 'start'])
    expect(freed).toEqual(pushed)
    // Another picture, which has no past, has it at its usual side.
    last.clear()
    expect(side([label('l', 402, 250)])).toEqual([12, 4, 'start'])
  })

  test('a label that was moved stands where it was put, tied to its point by a line', () => {
    const moved = label('l', 100, 100, { offset: [200, 150] })
    const items = placeLabels([moved], width, height)
    const [words] = labelsOf(items)
    expect(words).toMatchObject({ x: 300, y: 250, anchor: 'middle' })
    const leader = items.find((i) => i.key === 'l.leader')
    const d = leader?.kind === 'path' ? leader.d : ''
    const [x0, y0, x1, y1] = d.match(/-?[\d.]+/g)!.map(Number) as [number, number, number, number]
    expect(Math.hypot(x0 - 100, y0 - 100)).toBeLessThan(10)
    const box = labelBox(words!)
    expect(x1 >= box.left && x1 <= box.right && y1 >= box.top && y1 <= box.bottom).toBe(true)
    // Others keep off the place it was moved to.
    const neighbour = labelsOf(placeLabels([label('m', 290, 250), moved], width, height))
    expect(overlap(neighbour[0]!, neighbour[1]!)).toBe(false)
  })

  test('what two lines say of one point stands there once', () => {
    const [a, b] = [label('a', 100, 100), label('b', 100, 100)]
    expect(labelsOf(placeLabels([a, b], width, height))).toHaveLength(1)
    const other = { ...label('c', 100, 100), text: 'another' }
    expect(labelsOf(placeLabels([a, other], width, height))).toHaveLength(2)
  })

  test('near its point it needs no line', () => {
    const items = placeLabels([label('l', 100, 100, { offset: [60, -14] })], width, height)
    expect(items).toHaveLength(1)
  })
})

describe('the edges of a lane', () => {
  test('labels keep off the numbers of its ticks and off the words of the lane', () => {
    const words = { left: width - 150, right: width, top: 0, bottom: 20 }
    const corners = [label('l', 2, 250), label('r', width - 20, 8), label('m', 30, 480)]
    const placed = labelsOf(placeLabels(corners, width, height, { ...noObstacles, boxes: [words] }))
    expect(placed).toHaveLength(3)
    for (const one of placed) {
      const box = labelBox(one)
      expect(box.left).toBeGreaterThanOrEqual(30)
      expect(box.top < 20 && box.right > width - 150).toBe(false)
    }
  })
})

describe('the width of a text', () => {
  test.each([
    // Measured in a browser with the font that ships: Source Sans 3, semibold, 13 px.
    ['high 9.490 at t = 1.653', 120.7],
    ['low 0.415 at t = 5.329', 116.4],
    ['−3.191', 36.9],
  ])('%s is about %s pixels wide', (text, pixels) => {
    expect(Math.abs(textWidth(text) - pixels)).toBeLessThan(4)
  })
})

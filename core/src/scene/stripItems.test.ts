import { stripItems, type Strips } from './stripItems'

const frame = { x: [0, 8], y: [-1, 9], width: 800, height: 500 } as const
const zero = 450

/** Strips of a line, read at a share of their width, with their slivers. */
function marks(count: number, f: (x: number) => number, share: number): Strips {
  const width = 8 / count
  const strips = Array.from({ length: count }, (_, i) => {
    const [from, to] = [i * width, (i + 1) * width]
    const sample = from + share * width
    return { from, to, sample, height: f(sample), area: f(sample) * width }
  })
  const slivers = strips.flatMap(({ from, to, sample, height }, strip) =>
    [
      [from, sample],
      [sample, to],
    ].flatMap(([a, b]) =>
      a! < b! ? [{ strip, from: a!, to: b!, area: (height - f((a! + b!) / 2)) * (b! - a!) }] : [],
    ),
  )
  return { strips, curved: null, slivers, f }
}

/** The corners of a path's pieces, as [x, y] in pixels. */
function piecesOf(d: string): [number, number][][] {
  return d
    .split('M')
    .slice(1)
    .map((piece) => {
      let [x, y] = piece
        .split(/[A-Za-z]/)[0]!
        .split(' ')
        .map(Number) as [number, number]
      const corners: [number, number][] = [[x, y]]
      for (const [, kind, by] of piece.matchAll(/([HVh])(-?[\d.]+)/g)) {
        if (kind === 'H') x = Number(by)
        if (kind === 'h') x += Number(by)
        if (kind === 'V') y = Number(by)
        corners.push([x, y])
      }
      return corners
    })
}
function pathOf(items: ReturnType<typeof stripItems>, name: string): string {
  const item = items.find((i) => i.key === `s.${name}`)
  return item?.kind === 'path' ? item.d : ''
}

test('strips that touch are one outline as tall as each of them', () => {
  const items = stripItems(
    marks(1000, (x) => x, 0),
    frame,
    's',
  )
  const [outline, ...more] = piecesOf(pathOf(items, 'above'))
  expect(more).toEqual([])
  expect(outline![0]).toEqual([0, zero])
  expect(outline!.at(-1)).toEqual([800, zero])
  for (const [x, y] of outline!.slice(1, -1)) {
    // Heights are read at the left, 0.8 pixels apart; 50 pixels are one upwards.
    expect(Math.abs(zero - y - x / 2)).toBeLessThanOrEqual(0.41)
  }
})

test('a change of sign parts the outline', () => {
  const items = stripItems(
    marks(1000, (x) => (x < 3 ? 2 : x < 5 ? -0.5 : 2), 0),
    frame,
    's',
  )
  expect(piecesOf(pathOf(items, 'above'))).toHaveLength(2)
  expect(piecesOf(pathOf(items, 'below'))).toHaveLength(1)
  expect(piecesOf(pathOf(items, 'below'))[0]!.map(([x]) => x)).toEqual(
    expect.arrayContaining([300, 500]),
  )
})

test('read at the middle, thin strips show what is over and what is short alike', () => {
  // Steep enough for a sliver of a pixel: half of a strip's 0.8 pixels at slope 1 and 50 upwards.
  const items = stripItems(
    marks(1000, (x) => x, 0.5),
    frame,
    's',
  )
  const [over, short] = ['over', 'short'].map((name) => piecesOf(pathOf(items, name)))
  expect(over!.length).toBeGreaterThan(700)
  expect(Math.abs(over!.length - short!.length)).toBeLessThan(20)
  // What is over reaches up from the line, what is short down from it.
  for (const [first] of over!) {
    const [x, y] = first!
    expect(y).toBeLessThanOrEqual(zero - x / 2 + 0.41)
  }
})

import { parseFormula } from '../calculus/parseFormula'
import { levelLines } from './levels'
import { heightsOf, surfaceMesh } from './mesh'
import { compileSurface, type RealSurface, type Rectangle } from './surface'

function surface(text: string): RealSurface {
  const parsed = parseFormula(text, { variable: 'x', names: ['y'] })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compileSurface(parsed.tree, ['x', 'y'])
}
const square = (r: number): Rectangle => ({ x: { lo: -r, hi: r }, y: { lo: -r, hi: r } })
const box = (x0: number, x1: number, y0: number, y1: number): Rectangle => ({
  x: { lo: x0, hi: x1 },
  y: { lo: y0, hi: y1 },
})

/** Edges of triangles that only one triangle has, outside the border of the rectangle. */
function openEdges({ positions, triangles }: ReturnType<typeof surfaceMesh>, r: number) {
  const count = new Map<string, number>()
  for (let i = 0; i < triangles.length; i += 3) {
    const t = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!]
    t.forEach((a, k) => {
      const b = t[(k + 1) % 3]!
      const key = a < b ? `${a} ${b}` : `${b} ${a}`
      count.set(key, (count.get(key) ?? 0) + 1)
    })
  }
  const at = (v: number) => [positions[3 * v]!, positions[3 * v + 1]!] as const
  return [...count].filter(([key, n]) => {
    const [a, b] = key.split(' ').map((v) => at(Number(v))) as [
      readonly [number, number],
      readonly [number, number],
    ]
    const onBorder = [0, 1].some((k) => Math.abs(a[k]!) === r && a[k] === b[k])
    return n === 1 && !onBorder
  }).length
}

test('a mesh has no gaps where it is refined, and lies on the surface', () => {
  const f = surface('e^(-20(x - 0.3)^2 - 20 y^2) + 0.1 x')
  const within = square(2)
  const mesh = surfaceMesh(f, within, { cells: 12, heights: heightsOf(f, within)! })
  expect(openEdges(mesh, 2)).toBe(0)
  let worst = 0
  const { positions: p, triangles: t } = mesh
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i]!, t[i + 1]!, t[i + 2]!]
    const mean = (k: number) => (p[3 * a + k]! + p[3 * b + k]! + p[3 * c + k]!) / 3
    worst = Math.max(worst, Math.abs(mean(2) - f.value(mean(0), mean(1))))
  }
  expect(worst).toBeLessThan(0.012)
})

test('a mesh ends where the surface ends, and is cut at cliffs and poles', () => {
  const dome = surface('√(4 - x^2 - y^2)')
  const within = square(3)
  const mesh = surfaceMesh(dome, within, { heights: { lo: 0, hi: 2 } })
  let area = 0
  const { positions: p, triangles: t } = mesh
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i]!, t[i + 1]!, t[i + 2]!].map((v) => [p[3 * v]!, p[3 * v + 1]!]) as [
      [number, number],
      [number, number],
      [number, number],
    ]
    area += Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])) / 2
  }
  // The disc under the half sphere has the area 4π.
  expect(area).toBeGreaterThan(4 * Math.PI * 0.995)
  expect(area).toBeLessThanOrEqual(4 * Math.PI)

  // No triangle spans the cliff at x = 0.1, which no double is.
  const cliff = surfaceMesh(surface('floor(10 x) + y'), box(-0.35, 0.35, 0, 1), {
    heights: { lo: -5, hi: 5 },
  })
  for (let i = 0; i < cliff.triangles.length; i += 3) {
    const z = [0, 1, 2].map((k) => {
      const v = cliff.triangles[i + k]!
      return cliff.positions[3 * v + 2]! - cliff.positions[3 * v + 1]!
    })
    expect(Math.max(...z) - Math.min(...z)).toBeLessThan(0.5)
  }

  const pole = surface('1/(x^2 + y^2)')
  const heights = heightsOf(pole, square(2))!
  expect(heights.hi).toBeLessThan(100)
  const cut = surfaceMesh(pole, square(2), { heights })
  expect(Math.max(...cut.positions.filter((_, i) => i % 3 === 2))).toBeLessThanOrEqual(heights.hi)
  expect(surfaceMesh(surface('ln(-1 - x^2)'), square(1), { heights: { lo: 0, hi: 1 } })).toEqual({
    positions: new Float64Array(0),
    triangles: new Uint32Array(0),
  })
  expect(heightsOf(surface('ln(-1 - x^2)'), square(1))).toBeNull()
})

test('level lines lie at their height', () => {
  const f = surface('x^2 + y^2')
  const [line] = levelLines(f, square(2), [1], { lo: 0, hi: 8 })
  expect(line!.pieces.length).toBeGreaterThan(200)
  for (let i = 0; i < line!.pieces.length; i += 2) {
    expect(Math.hypot(line!.pieces[i]!, line!.pieces[i + 1]!)).toBeCloseTo(1, 3)
  }
})

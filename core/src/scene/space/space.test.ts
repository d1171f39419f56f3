import fc from 'fast-check'
import {
  cameraOf,
  changeLook,
  changeSpace,
  createEvaluator,
  createStudy,
  exportPicture,
  hasSpace,
  keepAsStep,
  meshOf,
  seenPoint,
  shownStudy,
  spaceOf,
  type Study,
  studySchema,
  thumbnail,
  usualSpace,
} from '../..'
import { studyOf } from '../../statements/fixtures/testing'
import { isBehind } from './camera'

const box = { x: { lo: -2, hi: 6 }, y: { lo: 100, hi: 103 }, z: { lo: -0.01, hi: 0.02 } }
const size = { width: 640, height: 480 }
const looking = (change: Partial<typeof usualSpace>) =>
  cameraOf({ ...usualSpace, ...change }, box, size)
const sceneOf = (study: Study) => spaceOf(createEvaluator({ patience: Infinity })(study))!

const angle = fc.integer({ min: -180, max: 180 })
const height = fc.integer({ min: -89, max: 89 })
const share = fc.double({ min: 0, max: 1, noNaN: true })
const inBox = fc
  .tuple(share, share, share)
  .map(([s, t, u]) => [-2 + 8 * s, 100 + 3 * t, -0.01 + 0.03 * u] as const)

test('from above the first axis runs to the right and the second one up, as on paper', () => {
  const camera = looking({ azimuth: -90, elevation: 90 })
  const [a, right, up] = [
    [0, 101, 0],
    [1, 101, 0],
    [0, 102, 0],
  ].map((p) => camera.project(p as [number, number, number]))
  expect(right!.x).toBeGreaterThan(a!.x + 10)
  expect(right!.y).toBeCloseTo(a!.y, 9)
  expect(up!.y).toBeLessThan(a!.y - 10)
  expect(up!.x).toBeCloseTo(a!.x, 9)
  // From the front z is upright, and what is higher is higher.
  const front = looking({ azimuth: -90, elevation: 0 })
  expect(front.project([0, 101, 0.01]).y).toBeLessThan(front.project([0, 101, 0]).y)
})

test('the box stays in the picture however it is turned, and a turn does not change its size', () => {
  fc.assert(
    fc.property(angle, height, fc.boolean(), (azimuth, elevation, perspective) => {
      const camera = looking({ azimuth, elevation, perspective })
      for (const x of [-2, 6]) {
        for (const y of [100, 103]) {
          for (const z of [-0.01, 0.02]) {
            const seen = camera.project([x, y, z])
            expect(seen.x).toBeGreaterThan(0)
            expect(seen.x).toBeLessThan(640)
            expect(seen.y).toBeGreaterThan(0)
            expect(seen.y).toBeLessThan(480)
          }
        }
      }
    }),
  )
  const lengths = [0, 37, 90, 200].map((azimuth) => {
    const camera = looking({ azimuth })
    const [low, high] = [camera.project([2, 101.5, -0.01]), camera.project([2, 101.5, 0.02])]
    return low.y - high.y
  })
  for (const length of lengths) expect(length).toBeCloseTo(lengths[0]!, 9)
})

test('equal scales draw a unit equally long along all axes', () => {
  const camera = cameraOf(
    { ...usualSpace, azimuth: -90, elevation: 90, equalScale: true },
    { x: { lo: 0, hi: 4 }, y: { lo: 0, hi: 1 }, z: { lo: 0, hi: 2 } },
    size,
  )
  const at = (x: number, y: number) => camera.project([x, y, 0])
  expect(at(1, 0).x - at(0, 0).x).toBeCloseTo(at(0, 0).y - at(0, 1).y, 9)
})

test('renderers with a matrix put a point where the projection does, nearer ones in front', () => {
  fc.assert(
    fc.property(
      angle,
      height,
      fc.boolean(),
      inBox,
      inBox,
      (azimuth, elevation, perspective, p, q) => {
        const camera = looking({ azimuth, elevation, perspective })
        const clip = (point: readonly [number, number, number]) => {
          const v = [...camera.measured(point), 1]
          const [x, y, z, w] = [0, 1, 2, 3].map((row) =>
            v.reduce((sum, value, k) => sum + camera.matrix[4 * k + row]! * value, 0),
          ) as [number, number, number, number]
          return { x: ((x / w + 1) / 2) * 640, y: ((1 - y / w) / 2) * 480, z: z / w }
        }
        const [seen, drawn, other] = [camera.project(p), clip(p), clip(q)]
        expect(drawn.x).toBeCloseTo(seen.x, 6)
        expect(drawn.y).toBeCloseTo(seen.y, 6)
        expect(Math.abs(drawn.z)).toBeLessThanOrEqual(1)
        const isNearer = seen.depth > camera.project(q).depth + 1e-9
        if (isNearer) expect(drawn.z).toBeLessThan(other.z)
      },
    ),
  )
})

test('what lies under a pixel of a point of the surface is that point, or one that hides it', () => {
  const f = (x: number, y: number) => 0.02 * Math.sin(x) * Math.cos(y)
  fc.assert(
    fc.property(
      angle,
      height,
      fc.boolean(),
      share,
      share,
      (azimuth, elevation, perspective, s, t) => {
        const camera = looking({ azimuth, elevation, perspective })
        const [x, y] = [-2 + 8 * s, 100 + 3 * t]
        const z = f(x, y)
        if (z < -0.0099 || z > 0.0199 || Math.abs(elevation) < 8) return
        const seen = camera.project([x, y, z])
        const sight = camera.sight(seen.x, seen.y)
        // At the very edge of the box the point may be missed.
        const found = sight && seenPoint(f, sight)
        if (!found) {
          expect(Math.min(s, t, 1 - s, 1 - t)).toBeLessThan(0.02)
          return
        }
        const under = camera.project([found.x, found.y, f(found.x, found.y)])
        expect(under.x).toBeCloseTo(seen.x, 3)
        expect(under.y).toBeCloseTo(seen.y, 3)
        expect(under.depth).toBeGreaterThan(seen.depth - 1e-6)
      },
    ),
    // On the border of the box, where the line of sight begins.
    { examples: [[-1, -8, false, 0.46259988060746393, 0]] },
  )
})

test('a point is behind the surface where its line of sight passes through it before', () => {
  const ground = { x: { lo: -2, hi: 2 }, y: { lo: -2, hi: 2 }, z: { lo: 0, hi: 0.4 } }
  const crater = (x: number, y: number) => (x * x + y * y) * Math.exp(-x * x - y * y)
  const from = (elevation: number, azimuth = 30) =>
    cameraOf({ ...usualSpace, elevation, azimuth }, ground, size)
  // The bottom of a crater is seen from above alone; a foot before the mountain always.
  expect(isBehind(crater, from(25), [0, 0, 0])).toBe(true)
  expect(isBehind(crater, from(89), [0, 0, 0])).toBe(false)
  expect(isBehind(crater, from(90), [0, 0, 0])).toBe(false)
  fc.assert(
    fc.property(share, share, height, angle, (u, v, elevation, azimuth) => {
      const [x, y] = [-1.9 + 3.8 * u, -1.9 + 3.8 * v]
      const p = [x, y, crater(x, y)] as const
      const camera = from(elevation, azimuth)
      const sight = camera.sight(camera.project(p).x, camera.project(p).y)
      if (!sight) return
      // Looked at in many places: is the surface crossed clearly before the point?
      const [near, far] = sight
      const at = (s: number) =>
        near.map((n, k) => n + s * (far[k]! - n)) as [number, number, number]
      const k = Math.abs(far[0] - near[0]) > Math.abs(far[1] - near[1]) ? 0 : 1
      const end = (p[k] - near[k]) / (far[k] - near[k])
      const gaps = Array.from({ length: 800 }, (_, i) => {
        const q = at((end * i) / 800)
        return q[2] - crater(q[0], q[1])
      })
      const side = Math.sign(gaps[0]!)
      const deepest = Math.max(...gaps.map((gap) => -gap * side))
      if (deepest > 0.02) expect(isBehind(crater, camera, p)).toBe(true)
      if (deepest <= 0) expect(isBehind(crater, camera, p)).toBe(false)
    }),
  )
})

test('a line of sight beside the box meets nothing', () => {
  expect(looking({}).sight(1, 1)).toBeNull()
  expect(
    seenPoint(
      () => NaN,
      [
        [0, 0, 1],
        [0, 0, -1],
      ],
    ),
  ).toBeNull()
})

test('a hidden surface is no view, and one without values stands in no one’s way', () => {
  const study = studyOf('z = x y', 'tangent plane at (1, 1)')
  expect(hasSpace(createEvaluator()(study))).toBe(true)
  const hidden = changeLook('line1', () => ({ hidden: true }))(study)
  expect(hasSpace(createEvaluator()(hidden))).toBe(false)
  expect(spaceOf(createEvaluator()(hidden))).toBeNull()
  const none = createStudy('z = √(-1 - x² - y²)')
  if (!none.ok) throw new Error('this can be read')
  expect(spaceOf(createEvaluator()(none.study))).toBeNull()
})

test('the view holds all of a surface, of two surfaces, and heights that were typed', () => {
  const scene = sceneOf(
    studyOf('z = x^2 - y^2 over [-2, 2] × [-1, 1]', 'surface h(x, y) = x over [0, 5] × [0, 1]'),
  )
  expect(scene.box).toEqual({
    x: { lo: -2, hi: 5 },
    y: { lo: -1, hi: 1 },
    z: { lo: expect.closeTo(-1, 6) as number, hi: expect.closeTo(5, 6) as number },
  })
  expect(new Set(scene.sheets.map(({ ink }) => ink)).size).toBe(2)
  const low = changeSpace({ heights: [0, 0.5] })(studyOf('z = x y over [0, 1] × [0, 1]'))
  const cut = sceneOf(low)
  const { positions } = meshOf(cut.sheets[0]!, cut.box, 'still')
  expect(Math.max(...positions.filter((_, i) => i % 3 === 2))).toBe(0.5)
})

test('level lines come with a switch; a plane is cut to the box', () => {
  const study = studyOf('z = x^2 + y^2 over [-2, 2] × [-2, 2]', 'tangent plane at (1.5, 1.5)')
  const levels = (s: Study) => sceneOf(s).lines.filter(({ role }) => role === 'level')
  expect(levels(study)).toEqual([])
  expect(levels(changeSpace({ levels: true })(study)).length).toBeGreaterThan(3)
  const [plane] = sceneOf(study).planes
  for (const [x, y, z] of plane!.corners) {
    expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThanOrEqual(2)
    expect(z).toBeGreaterThanOrEqual(0)
    expect(z).toBeLessThanOrEqual(8 + 1e-9)
    expect(z).toBeCloseTo(4.5 + 3 * (x - 1.5) + 3 * (y - 1.5), 9)
  }
})

test('no line of the grid is drawn across a cliff', () => {
  const scene = sceneOf(studyOf('z = floor(x) + y/10 over [-3, 3] × [-1, 1]'))
  const grid = scene.lines.filter(({ role }) => role === 'grid').flatMap(({ points }) => points)
  expect(grid.length).toBeGreaterThan(100)
  for (const [p, q] of grid) expect(Math.abs(p[2] - q[2])).toBeLessThan(0.5)
})

test('angles are kept between −180 and 180, and what is no view changes nothing', () => {
  const study = studyOf('z = x y')
  expect(changeSpace({ azimuth: 305 })(study).space.azimuth).toBe(-55)
  expect(changeSpace({ elevation: 200 })(study).space.elevation).toBe(90)
  expect(changeSpace({ heights: [3, 1] })(study)).toBe(study)
  expect(changeSpace({ azimuth: NaN })(study)).toBe(study)
  expect(changeSpace({ levels: study.space.levels })(study)).toBe(study)
})

test('a step keeps how the surfaces are looked at; a study of before has the usual view', () => {
  const study = changeSpace({ elevation: 60 })(studyOf('z = x y'))
  const kept = keepAsStep('Above')(study)
  const turned = changeSpace({ elevation: 10, levels: true })(kept)
  expect(shownStudy(turned, { step: kept.steps[0]!.id }).space).toMatchObject({
    ...{ elevation: 60, levels: false },
  })
  const { space: _, ...before } = studyOf('f(x) = x')
  expect(studySchema.parse(before).space).toEqual(usualSpace)
})

test('a picture of a study with a surface alone shows it; with lanes it stands above them', () => {
  const study = studyOf('z = x y over [-1, 1] × [-1, 1]', 'tangent plane at (0.5, 0.5)')
  const svg = exportPicture(study, { format: 'svg', width: 400, height: 300 })
  expect(svg).toContain('The surface z over −1 to 1 and −1 to 1')
  expect(svg.match(/<path/g)!.length).toBeGreaterThan(500)
  expect(svg).not.toMatch(/NaN|Infinity|undefined/)
  const both = studyOf('z = x y over [-1, 1] × [-1, 1]', 'section')
  const latex = exportPicture(both, { format: 'latex', width: 400, height: 300 })
  expect(latex).toMatch(/\\begin\{tikzpicture\}/)
  expect(latex).not.toMatch(/NaN|Infinity|undefined/)
  const small = thumbnail(study, 120, 60)
  expect(small.items.length).toBe(169)
})

import {
  blend,
  brightness,
  type Camera,
  edgesOf,
  inkShare,
  meshOf,
  type Point3,
  type SpaceLines,
  type SpaceScene,
  type SpaceSheet,
  type SpaceStyle,
  uprightAt,
} from '@yperkine/core'
import { Canvas, extend, type ThreeElement, useThree } from '@react-three/fiber'
import { useEffect, useLayoutEffect, useMemo } from 'react'
import {
  BufferAttribute,
  BufferGeometry,
  Camera as Eye,
  Color,
  DoubleSide,
  MeshBasicMaterial,
  Vector2,
} from 'three'
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js'
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js'
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js'

extend({ LineSegments2 })

declare module '@react-three/fiber' {
  interface ThreeElements {
    lineSegments2: ThreeElement<typeof LineSegments2>
  }
}

interface Props {
  scene: SpaceScene
  camera: Camera
  style: SpaceStyle
  /** Something is under way: coarser surfaces are made in less time. */
  hurried: boolean
  /** The browser has taken its drawing away. */
  onLost: () => void
}

/** The surfaces, planes and lines drawn by the graphics of the machine, over a clear ground. */
export default function SpaceGl({ scene, camera, style, hurried, onLost }: Props) {
  // It is moved by its matrix alone, and no size of the page changes it.
  const eye = useMemo(() => Object.assign(new Eye(), { manual: true }), [])
  return (
    <Canvas
      className="pointer-events-none !absolute inset-0"
      frameloop="demand"
      flat
      linear
      camera={eye as never}
      gl={{ alpha: true, antialias: true }}
      aria-hidden
      onCreated={({ gl }) => {
        gl.domElement.addEventListener('webglcontextlost', onLost, { once: true })
      }}
    >
      <Seen eye={eye} camera={camera} />
      {scene.sheets.map((sheet) => (
        <Sheet
          key={sheet.key}
          {...{ sheet, style }}
          mesh={meshOf(sheet, scene.box, hurried ? 'still' : 'fine')}
          scales={camera.scales}
          measured={camera.measured}
        />
      ))}
      {scene.planes.map(({ key, ink, corners }) => (
        <Patch
          key={key}
          corners={corners}
          measured={camera.measured}
          colour={colourOf(style, ink)}
        />
      ))}
      {[...scene.lines, ...edgesOf(scene, 1)].map((lines) => (
        <Lines key={lines.key} {...{ lines, camera, style }} />
      ))}
    </Canvas>
  )
}

const colourOf = ({ palette }: SpaceStyle, ink: SpaceLines['ink']) =>
  ink === 'none' ? palette.inks.ink : palette.inks[ink]

/** The red, green and blue of #rrggbb as they are to appear: nothing converts them. */
const parts = (hex: string): [number, number, number] => [
  parseInt(hex.slice(1, 3), 16) / 255,
  parseInt(hex.slice(3, 5), 16) / 255,
  parseInt(hex.slice(5, 7), 16) / 255,
]
const plainColour = (hex: string) => new Color().setRGB(...parts(hex))

/** Looks with the matrix of our own camera, and asks for a frame whenever anything has changed. */
function Seen({ eye, camera }: { eye: Eye; camera: Camera }) {
  const invalidate = useThree((three) => three.invalidate)
  useLayoutEffect(() => {
    eye.projectionMatrix.fromArray(camera.matrix)
    eye.projectionMatrixInverse.copy(eye.projectionMatrix).invert()
    invalidate()
  })
  return null
}

interface SheetProps {
  sheet: SpaceSheet
  mesh: ReturnType<typeof meshOf>
  style: SpaceStyle
  scales: Point3
  measured: Camera['measured']
}

function Sheet({ sheet: { f, ink, opacity }, mesh, style, scales, measured }: SheetProps) {
  const geometry = useMemo(() => {
    const { positions, triangles } = mesh
    const count = positions.length / 3
    const [placed, colours] = [new Float32Array(count * 3), new Float32Array(count * 3)]
    const { palette, isDark } = style
    const own = colourOf(style, ink)
    for (let i = 0; i < count; i++) {
      const p: Point3 = [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!]
      placed.set(measured(p), 3 * i)
      const upright = uprightAt(f, p[0], p[1], scales)
      const bright = upright ? brightness(upright) : 0.5
      colours.set(parts(blend(palette.page, own, inkShare(bright, isDark))), 3 * i)
    }
    const made = new BufferGeometry()
    made.setAttribute('position', new BufferAttribute(placed, 3))
    made.setAttribute('color', new BufferAttribute(colours, 3))
    made.setIndex(new BufferAttribute(triangles, 1))
    return made
  }, [mesh, f, ink, style, scales, measured])
  useEffect(() => () => geometry.dispose(), [geometry])
  const material = useMemo(
    () =>
      new MeshBasicMaterial({
        ...{ vertexColors: true, side: DoubleSide, transparent: opacity < 1, opacity },
        depthWrite: opacity === 1,
        // Lines on a surface lie before it.
        ...{ polygonOffset: true, polygonOffsetFactor: 2, polygonOffsetUnits: 2 },
      }),
    [opacity],
  )
  useEffect(() => () => material.dispose(), [material])
  return <mesh geometry={geometry} material={material} frustumCulled={false} />
}

interface PatchProps {
  corners: readonly Point3[]
  measured: Camera['measured']
  colour: string
}

function Patch({ corners, measured, colour }: PatchProps) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry()
    const placed = Float32Array.from(corners.flatMap((p) => [...measured(p)]))
    made.setAttribute('position', new BufferAttribute(placed, 3))
    made.setIndex(Array.from({ length: corners.length - 2 }, (_, k) => [0, k + 1, k + 2]).flat())
    return made
  }, [corners, measured])
  useEffect(() => () => geometry.dispose(), [geometry])
  const material = useMemo(
    () =>
      new MeshBasicMaterial({
        ...{ color: plainColour(colour), side: DoubleSide, transparent: true, opacity: 0.38 },
        depthWrite: false,
      }),
    [colour],
  )
  useEffect(() => () => material.dispose(), [material])
  return <mesh geometry={geometry} material={material} frustumCulled={false} renderOrder={1} />
}

interface LinesProps {
  lines: SpaceLines
  camera: Camera
  style: SpaceStyle
}

function Lines({ lines: { points, ink, width, role }, camera, style }: LinesProps) {
  const { measured } = camera
  const own = colourOf(style, ink)
  const isGrid = role === 'grid'
  const colour = isGrid ? blend(own, style.palette.page, style.isDark ? 0.1 : 0.15) : own
  const thick = width * (isGrid ? 0.7 : 1) * style.scale
  const geometry = useMemo(() => {
    const made = new LineSegmentsGeometry()
    const placed = new Float32Array(points.length * 6)
    points.forEach(([p, q], i) => {
      placed.set(measured(p), 6 * i)
      placed.set(measured(q), 6 * i + 3)
    })
    made.setPositions(placed)
    return made
  }, [points, measured])
  useEffect(() => () => geometry.dispose(), [geometry])
  const material = useMemo(
    () =>
      new LineMaterial({
        ...{ color: 0, linewidth: thick, worldUnits: false },
        // A line lies on the true surface, a little before or behind the flat pieces that stand for it.
        ...{ polygonOffset: true, polygonOffsetFactor: 0, polygonOffsetUnits: -20_000 },
      }),
    [thick],
  )
  useLayoutEffect(() => {
    material.color = plainColour(colour)
    material.resolution = new Vector2(camera.width, camera.height)
  }, [material, colour, camera.width, camera.height])
  useEffect(() => () => material.dispose(), [material])
  if (points.length === 0) return null
  return (
    <lineSegments2
      args={[geometry, material]}
      key={`${geometry.id} ${material.id}`}
      frustumCulled={false}
      renderOrder={2}
    />
  )
}

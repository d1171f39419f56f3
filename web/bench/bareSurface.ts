/*
 * The least that a page can do for a turning surface: a mesh of 200 × 200 cells with a colour at each
 * vertex, turned by a drag, drawn by three alone. What the page's own view is measured beside.
 */
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Mesh,
  MeshBasicMaterial,
  OrthographicCamera,
  Scene,
  WebGLRenderer,
} from 'three'

const cells = 200
const side = cells + 1
const positions = new Float32Array(side * side * 3)
const colours = new Float32Array(side * side * 3)
for (let j = 0; j < side; j++) {
  for (let i = 0; i < side; i++) {
    const [x, y] = [(6 * i) / cells - 3, (6 * j) / cells - 3]
    const at = 3 * (j * side + i)
    positions.set([x / 3, y / 3, 0.3 * Math.sin(3 * x) * Math.cos(3 * y)], at)
    colours.set([0.3, 0.5, 0.6 + 0.3 * Math.sin(3 * x)], at)
  }
}
const triangles = new Uint32Array(cells * cells * 6)
for (let j = 0; j < cells; j++) {
  for (let i = 0; i < cells; i++) {
    const a = j * side + i
    triangles.set([a, a + 1, a + side, a + 1, a + side + 1, a + side], 6 * (j * cells + i))
  }
}
const geometry = new BufferGeometry()
geometry.setAttribute('position', new BufferAttribute(positions, 3))
geometry.setAttribute('color', new BufferAttribute(colours, 3))
geometry.setIndex(new BufferAttribute(triangles, 1))
const scene = new Scene()
scene.add(new Mesh(geometry, new MeshBasicMaterial({ vertexColors: true, side: DoubleSide })))

const [width, height] = [876, 668]
const renderer = new WebGLRenderer({ antialias: true, alpha: true })
renderer.setSize(width, height)
document.body.append(renderer.domElement)
const camera = new OrthographicCamera(-1.8, 1.8, 1.4, -1.4, 0.1, 20)
camera.up.set(0, 0, 1)
let [azimuth, wanted] = [0, false]
const draw = () => {
  wanted = false
  camera.position.set(6 * Math.cos(azimuth), 6 * Math.sin(azimuth), 3)
  camera.lookAt(0, 0, 0)
  renderer.render(scene, camera)
}
addEventListener('pointermove', (event) => {
  azimuth = event.clientX / 150
  if (!wanted) requestAnimationFrame(draw)
  wanted = true
})
draw()

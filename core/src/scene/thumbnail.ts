import { createEvaluator } from '../results/evaluate'
import { surfaceOf } from '../statements'
import type { Study } from '../study/schema'
import { toPixelY } from './frame'
import type { Fill, Ink, Item } from './items'
import { markerPath } from './markers'
import { createSceneMaker } from './scene'
import { spaceThumbnail } from './space/spaceThumbnail'

/** Something drawn in the picture of a study. */
export interface Stroke {
  d: string
  ink: Ink
  width: number
  fill?: Fill
  order?: number
}

/** A picture holds so many characters of paths at the most; what would be too much is left out. */
const longest = 12_000

/**
 * The surfaces of a study, else its first lane that is not covered, as it opens, drawn small: curves,
 * strips, lines and points, without words. All of it in a frame of `width` by `height` pixels. `path`
 * is the curve of the lane alone, and `axis` the height of its axis where that is in view.
 */
export function thumbnail(
  study: Study,
  width: number,
  height: number,
): { path: string; axis: number | null; items: Stroke[] } {
  const nothing = { path: '', axis: null, items: [] }
  // What is covered is to be guessed: its picture would tell.
  const first = study.lanes.find((lane) => !lane.covered)
  const faces = isInSpace(study) ? spaceThumbnail(createEvaluator()(study), width, height) : []
  if (faces.length > 0) {
    return { ...nothing, items: faces.map((face) => ({ ...face, width: 0.7, fill: 'page' })) }
  }
  if (!first) return nothing
  const evaluation = createEvaluator()({ ...study, lanes: [first] })
  const { lanes } = createSceneMaker()(evaluation, { width, heights: { [first.id]: height } })
  const lane = lanes[0]
  if (!lane || lane.undrawn !== null || lane.items.length === 0) return nothing
  const zero = toPixelY({ y: lane.y, height }, 0)
  const curve = lane.items.find((item) => item.key === 'curve')
  let room = longest
  const items = lane.items.flatMap((item): Stroke[] => {
    const stroke = strokeOf(item)
    if (!stroke || stroke.d === '' || stroke.d.length > room) return []
    room -= stroke.d.length
    return [stroke]
  })
  return {
    path: curve?.kind === 'path' ? curve.d : '',
    axis: zero >= 0 && zero <= height ? zero : null,
    items,
  }
}

const isInSpace = ({ lines }: Study) => lines.some((line) => surfaceOf(line) !== null)

/** The grid, the axes and the guides of places say nothing in so small a picture. */
const isFurniture = ({ key }: Item) => /^(?:grid|axis|axes|guide|turn|bend|place)/.test(key)

function strokeOf(item: Item): Stroke | null {
  if (item.kind === 'body') {
    const { x, y, reach, ink } = item
    return { d: markerPath('disc', x, y, Math.min(5, reach)), ink, width: 0, fill: 'own' }
  }
  if (item.kind === 'dot') {
    const { shape, x, y, reach, ink } = item
    return { d: markerPath(shape, x, y, reach), ink, width: 0, fill: 'own' }
  }
  if (item.kind !== 'path' || isFurniture(item) || item.ink === 'grid' || item.ink === 'axis') {
    return null
  }
  const { d, ink, width, fill, order } = item
  return { d, ink, width, ...(fill ? { fill } : {}), ...(order ? { order } : {}) }
}

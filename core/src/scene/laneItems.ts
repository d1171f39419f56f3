import type { LineLook } from '../vocabulary/members'
import { breakHeights, breakItems } from './breakSpots'
import { bandItems, guideItems } from './findings'
import { type Frame, toPixelX } from './frame'
import { gridItems } from './grid'
import type { Item } from './items'
import { placeLabels } from './labels'
import { firstOfEach, itemsOf, sampledOf } from './lineMarks'
import { curveInk, inkOf, withLook } from './looks'
import type { Sample } from './marks/mark'
import type { PlacedTick } from './picture'
import { round, sampleCurve, type Stroke, strokesToPath } from './sampleCurve'
import type { Ground, Lane, LaneCurves } from './ground'

/** What is drawn in a lane, in the order of drawing. */
export function laneItems(
  lane: Lane,
  curves: LaneCurves,
  frame: Frame,
  ground: Ground,
  drawn: { ticks: readonly PlacedTick[]; strokes: Stroke[]; tied: readonly Item[] },
): Item[] {
  const { keep } = ground.keeper
  const { width, height } = frame
  const { strokes } = drawn
  const { grid, axes } = ground.evaluation.study.display
  const key = (part: string) => `${lane.id}.${part}`
  const lines = keep(key('grid'), [ground.ticks, drawn.ticks, frame, grid, axes], () =>
    gridItems(frame, ground.ticks, drawn.ticks, grid, axes),
  )
  const over = overlaid(lane, curves, frame, ground)
  const found = foundItems(lane, curves, frame, ground)
  const follow: Sample = (of) => sampledOf(of, ground.evaluation.curves)
  const marks = curves.marked.flatMap((m) =>
    keep(key(`mark.${m.line}.${m.mark.id}`), [m.mark, frame, m.dimmed, m.look, m.label], () =>
      itemsOf(m, frame, follow),
    ),
  )
  const sides = ground.sides.get(lane.id) ?? new Map<string, number>()
  ground.sides.set(lane.id, sides)
  const labelled = [width, height, strokes, ...over.strokes, ...marks]
  // Dots come last, so that nothing is drawn over what can be taken hold of.
  return [
    ...lines,
    ...found.filter(isBehind),
    ...placeGuides(lane, frame, ground),
    ...marks.filter(({ layer }) => layer === 'insides'),
    ...drawn.tied,
    ...over.paths,
    ...curveItems(lane, curves, strokes, ground),
    ...found.filter((item) => !isBehind(item)),
    ...keep(key('marks'), labelled, () =>
      placeLabels(
        marks.filter(({ layer }) => layer !== 'points' && layer !== 'insides'),
        width,
        height,
        [...strokes, ...over.strokes],
        sides,
      ),
    ),
    ...firstOfEach(marks.filter(({ layer }) => layer === 'points')),
  ]
}

/** Bands lie behind the curve, guides before it. */
const isBehind = (item: Item) => item.kind === 'rect' || item.key.startsWith('band')

/** The curve of a lane with the words someone has put to it. */
function curveItems(
  lane: Lane,
  { curve, index }: LaneCurves,
  strokes: Stroke[],
  { lookOf, keeper }: Ground,
): Item[] {
  const look = lookOf(lane.curve, lane.order)
  const drawn = keeper.keep(`${lane.id}.curve`, [strokes, index, curve.stale, look], (): Item =>
    withLook(
      {
        kind: 'path',
        key: 'curve',
        layer: 'ground',
        d: look?.hidden ? '' : strokesToPath(strokes),
        ink: curveInk(index),
        width: 3,
        order: lane.order,
        dimmed: curve.stale,
      },
      look,
    ),
  )
  const caption = keeper.keep(`${lane.id}.caption`, [strokes, look, index], () =>
    captionItems(strokes, look, index),
  )
  return [drawn, ...caption]
}

/** The words someone has put to a curve, where it leaves the picture on the right. */
function captionItems(
  strokes: readonly Stroke[],
  look: LineLook | undefined,
  index: number,
): Item[] {
  const last = strokes.at(-1)
  if (!look?.label || look.hidden || !last) return []
  const at = Math.max(0, Math.floor(last.length / 2) - 12) * 2
  return [
    {
      kind: 'label',
      key: 'caption',
      layer: 'ground',
      x: round(last[at]! - 6),
      y: round(last[at + 1]! - 10),
      text: look.label,
      ink: inkOf(look) ?? curveInk(index),
      anchor: 'end',
    },
  ]
}

/** The curves laid over a lane's own. */
function overlaid(lane: Lane, { over }: LaneCurves, frame: Frame, ground: Ground) {
  const { keep } = ground.keeper
  const { hurried } = ground.viewport
  const names = [...ground.evaluation.curves.keys()]
  const drawn = over.map((o) => {
    const part = `over.${o.name}.${o.order}`
    const strokes = keep(`${lane.id}.${part}.strokes`, [o.f, o.curve, frame, hurried], () =>
      sampleCurve(o.f, o.curve.reach.from, o.curve.reach.to, frame, hurried !== true),
    )
    const path = keep(`${lane.id}.${part}.path`, [strokes, o.curve], (): Item => ({
      kind: 'path',
      key: part,
      layer: 'ground',
      d: strokesToPath(strokes),
      ink: curveInk(names.indexOf(o.name)),
      width: 3,
      order: o.order,
      dimmed: o.curve.stale,
    }))
    return { strokes, path }
  })
  return { strokes: drawn.flatMap((d) => d.strokes), paths: drawn.map((d) => d.path) }
}

/** What was found about the curve: bands of its signs, guides between lanes. */
function foundItems(
  lane: Lane,
  { curve, index }: LaneCurves,
  frame: Frame,
  ground: Ground,
): Item[] {
  const finding = ground.findings.get(lane.curve)
  if (!finding) return []
  const open = ground.evaluation.study.lanes.flatMap((l) =>
    l.curve === lane.curve ? [l.order] : [],
  )
  const { order } = lane
  const own = order >= 0 && order <= 1 && curve.formula ? curve.derivative(order).f : null
  const { breaks } = finding.examination
  const heights = own
    ? ground.keeper.keep(`${lane.id}.breaks`, [breaks, own], () => breakHeights(own, order, breaks))
    : []
  const spots = ground.keeper.keep(`${lane.id}.spots`, [heights, frame, index, finding.stale], () =>
    breakItems(heights, frame, curveInk(index), finding.stale),
  )
  const found = ground.keeper.keep(`${lane.id}.found`, [finding, frame, open.join(), index], () => [
    ...bandItems(lane.curve, lane.order, finding, frame),
    ...guideItems(lane.order, open, finding, frame, curveInk(index)),
  ])
  return [...found, ...spots]
}

/** A dotted line through all lanes at each place. */
const placeGuides = (lane: Lane, frame: Frame, { evaluation, keeper }: Ground): Item[] =>
  evaluation.places.flatMap((place) => {
    const at = toPixelX(frame, place.value)
    if (!(at >= 0 && at <= frame.width)) return []
    return keeper.keep(`${lane.id}.guide.${place.text}`, [at, frame.height], (): Item[] => [
      {
        kind: 'path',
        key: `guide.${place.text}`,
        layer: 'marks',
        d: `M${round(at)} 0V${frame.height}`,
        ink: 'place',
        width: 1.5,
        dotted: true,
      },
    ])
  })

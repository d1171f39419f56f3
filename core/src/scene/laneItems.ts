import type { CurveResult } from '../statements/contract'
import { breakHeights, breakItems } from './breakSpots'
import { bandItems, guideItems } from './findings'
import { type Frame, toPixelX, toPixelY } from './frame'
import { gridItems } from './grid'
import type { Item } from './items'
import { placeLabels } from './labels'
import { type Named, nameItems } from './curveNames'
import { drawnCurve } from './drawnCurve'
import { laneTitle } from './laneTitle'
import { firstOfEach, itemsOf, type MarkOfLine, sampledOf } from './lineMarks'
import { curveInk, inkOf, withLook } from './looks'
import type { Sample } from './marks/mark'
import { placeNotes, titleNote } from './notes'
import { type Box, obstaclesOf } from './obstacles'
import type { PlacedTick } from './picture'
import { placesAlong } from './placesAlong'
import { round, sampleCurve, type Stroke } from './sampleCurve'
import type { Ground, Lane, LaneCurves } from './ground'
import { trailItems } from './trails'

/** What is drawn in a lane, in the order of drawing. */
export function laneItems(
  lane: Lane,
  curves: LaneCurves,
  frame: Frame,
  ground: Ground,
  drawn: {
    ticks: readonly PlacedTick[]
    strokes: Stroke[]
    over: Overlaid
    tied: readonly Item[]
    /** Where the lane's own words stand. */
    words: readonly Box[]
  },
): Item[] {
  const { keep } = ground.keeper
  const { width, height } = frame
  const { strokes, over, words } = drawn
  const { grid, axes } = ground.evaluation.study.display
  const key = (part: string) => `${lane.id}.${part}`
  const lines = keep(key('grid'), [ground.ticks, drawn.ticks, frame, grid, axes], () =>
    gridItems(frame, ground.ticks, drawn.ticks, grid, axes),
  )
  const found = foundItems(lane, curves, frame, ground)
  const follow: Sample = (of) => sampledOf(of, ground.evaluation.curves)
  const marks = curves.marked.flatMap((m) =>
    keep(
      key(`mark.${m.line}.${m.mark.id}`),
      [m.mark, frame, m.dimmed, m.look, m.label, m.tint, m.way, ground.type],
      () => itemsOf(grownMark(m, ground.type), frame, follow).map((i) => grownDot(i, ground.type)),
    ),
  )
  const passed = trailsOf(lane, curves, frame, ground)
  const sides = ground.sides.get(lane.id) ?? new Map<string, number>()
  ground.sides.set(lane.id, sides)
  const plain = marks.filter((item) => item.kind !== 'note')
  const standing = [...plain, ...found.filter((item) => !isGuide(item))]
  const all = [...strokes, ...over.flatMap((one) => one.strokes)]
  const named = namedCurves(lane, curves, strokes, over, ground)
  const { study } = ground.evaluation
  const isTitled = study.display.title && study.lanes[0] === lane
  const title = isTitled ? [keep('title', [study.title], () => titleNote(study.title))] : []
  const notes = [...title, ...marks.filter((item) => item.kind === 'note')]
  const labelled = [
    ground.type,
    width,
    height,
    ...notes,
    strokes,
    ...over.map((one) => one.strokes),
    ...standing,
  ]
  const labels = keep(key('marks'), [...labelled, ...words, ...named], () => {
    const obstacles = obstaclesOf(standing, all, ground.type)
    const before = { ...obstacles, boxes: [...obstacles.boxes, ...words] }
    const foot = lane.order === 1 || lane.order === 2 ? footHeight : 0
    const placed = placeNotes(notes, { width, height }, foot, before, sides)
    const kept = placed.flatMap(({ x, y, width: w, height: h, unplaced }) =>
      unplaced ? [] : [{ left: x, top: y, right: x + w, bottom: y + h }],
    )
    const around = { ...before, boxes: [...before.boxes, ...kept] }
    const names = nameItems(named, width, height, around, sides)
    const movable = plain.filter(({ layer }) => layer !== 'points' && layer !== 'insides')
    return [...placed, ...placeLabels([...names, ...movable], width, height, around, sides)]
  })
  // Dots come last, so that nothing is drawn over what can be taken hold of.
  return [
    ...lines,
    ...found.filter(isBehind),
    ...placeGuides(lane, frame, ground),
    ...marks.filter(({ layer }) => layer === 'insides'),
    ...passed,
    ...drawn.tied,
    ...over.flatMap((one) => one.items),
    ...curveItems(lane, curves, strokes, ground),
    ...found.filter((item) => !isBehind(item)),
    ...labels,
    ...firstOfEach([
      ...marks.filter(({ layer }) => layer === 'points'),
      ...placeDots(lane, curves, frame, ground),
    ]),
  ]
}

/** Where words are set larger, points and bodies are. */
const grownMark = (marked: MarkOfLine, type: number): MarkOfLine =>
  type === 1 || marked.mark.kind !== 'body'
    ? marked
    : { ...marked, mark: { ...marked.mark, size: marked.mark.size * type } }
const grownDot = (item: Item, type: number): Item =>
  type === 1 || item.kind !== 'dot' ? item : { ...item, reach: item.reach * type }

/** A derivative has its band at the foot, in pixels. */
const footHeight = 22

/** The trails of a lane. */
function trailsOf(lane: Lane, { marked }: LaneCurves, frame: Frame, ground: Ground): Item[] {
  const { keeper, viewport, evaluation } = ground
  return marked.flatMap(({ mark, line, look }) => {
    if (mark.kind !== 'trail') return []
    const trail = viewport.trails?.get(line)
    const f = sampledOf(mark.lane, evaluation.curves)
    const slope = sampledOf({ ...mark.lane, order: mark.lane.order + 1 }, evaluation.curves)
    const curve = evaluation.curves.get(mark.lane.curve)
    return keeper.keep(`${lane.id}.trail.${line}`, [trail, curve, mark.style, frame, look], () =>
      trailItems(mark, trail, f, slope, frame, `${line}.trail`).map((item) =>
        withLook({ ...item, layer: 'insides' }, look),
      ),
    )
  })
}

/** Bands lie behind the curve, guides before it. */
const isBehind = (item: Item) => item.kind === 'rect' || item.key.startsWith('band')

const isGuide = (item: Item) => item.kind === 'path' && item.dotted === true

/** The curves of a lane as they are called: by the words someone has put to them, or their letter. */
function namedCurves(
  lane: Lane,
  { index }: LaneCurves,
  strokes: readonly Stroke[],
  over: Overlaid,
  { lookOf, keeper, evaluation }: Ground,
): Named[] {
  const names = [...evaluation.curves.keys()]
  const nameOf = (curve: string, order: number, at: number, own: readonly Stroke[]) => {
    const look = lookOf(curve, order)
    if (look?.hidden) return []
    const named = keeper.keep(`${lane.id}.name.${curve}.${order}`, [own, look, at], (): Named => ({
      key: `name.${curve}.${order}`,
      text: look?.label ?? laneTitle({ curve, order }),
      ink: inkOf(look) ?? curveInk(at),
      strokes: own,
    }))
    return [named]
  }
  return [
    ...nameOf(lane.curve, lane.order, index, strokes),
    ...over.flatMap((one) => nameOf(one.name, one.order, names.indexOf(one.name), one.strokes)),
  ]
}

/** The curve of a lane. */
function curveItems(
  lane: Lane,
  { curve, index }: LaneCurves,
  strokes: Stroke[],
  { lookOf, keeper, ticks }: Ground,
): Item[] {
  const look = lookOf(lane.curve, lane.order)
  const points = look?.marker ? ticks : noTicks
  return keeper.keep(`${lane.id}.curve`, [strokes, index, curve.stale, look, points], () =>
    drawnCurve('curve', strokes, { index, order: lane.order, dimmed: curve.stale }, look, points),
  )
}

const noTicks: readonly PlacedTick[] = []

/** The curves laid over a lane's own. */
export type Overlaid = readonly {
  name: string
  order: number
  strokes: Stroke[]
  items: Item[]
}[]

export function overlaid(
  lane: Lane,
  { over }: LaneCurves,
  frame: Frame,
  { keeper, viewport, evaluation, lookOf, ticks }: Ground,
): Overlaid {
  const { keep } = keeper
  const { hurried } = viewport
  const names = [...evaluation.curves.keys()]
  return over
    .filter((o) => !o.unseen)
    .map(({ name, order, curve, f }) => {
      const part = `over.${name}.${order}`
      const { from, to } = curve.reach
      const strokes = keep(`${lane.id}.${part}.strokes`, [f, curve, frame, hurried], () =>
        sampleCurve(f, from, to, frame, hurried !== true),
      )
      const look = lookOf(name, order)
      const points = look?.marker ? ticks : noTicks
      const index = names.indexOf(name)
      const items = keep(`${lane.id}.${part}.path`, [strokes, curve, look, points], () =>
        drawnCurve(part, strokes, { index, order, dimmed: curve.stale }, look, points),
      )
      return { name, order, strokes, items }
    })
}

/** The spots of a curve of a lane at its breaks. */
function spotsOf(
  lane: Lane,
  { name, order, curve }: { name: string; order: number; curve: CurveResult },
  index: number,
  frame: Frame,
  { findings, keeper }: Ground,
): Item[] {
  const finding = findings.get(name)
  if (!finding || order < 0 || order > 1 || !curve.formula) return []
  const { f } = curve.derivative(order)
  const { breaks } = finding.examination
  const key = `${lane.id}.${name}.${order}`
  const heights = keeper.keep(`${key}.breaks`, [breaks, f], () => breakHeights(f, order, breaks))
  return keeper.keep(`${key}.spots`, [heights, frame, index, finding.stale], () =>
    breakItems(heights, frame, curveInk(index), finding.stale, `${name}.${order}.`),
  )
}

/** What was found about the curve: bands of its signs, guides between lanes. */
function foundItems(
  lane: Lane,
  { curve, index, over, unseen }: LaneCurves,
  frame: Frame,
  ground: Ground,
): Item[] {
  const names = [...ground.evaluation.curves.keys()]
  const seen = over.filter((one) => !one.unseen)
  const spots = [
    ...(unseen
      ? []
      : spotsOf(lane, { name: lane.curve, order: lane.order, curve }, index, frame, ground)),
    ...seen.flatMap((one) => spotsOf(lane, one, names.indexOf(one.name), frame, ground)),
  ]
  const finding = ground.findings.get(lane.curve)
  if (!finding || unseen) return spots
  const open = ground.evaluation.study.lanes.flatMap((l) =>
    l.curve === lane.curve ? [l.order] : [],
  )
  const found = ground.keeper.keep(
    `${lane.id}.found`,
    [finding, frame, open.join(), index, ground.type],
    () => [
      ...bandItems(lane.curve, lane.order, finding, frame, ground.type),
      ...guideItems(lane.order, open, finding, frame, curveInk(index)),
    ],
  )
  return [...found, ...spots]
}

/** The point of a curve at each place that moves, also where no line hangs on it yet. */
function placeDots(
  lane: Lane,
  { curve, f, over, unseen, marked }: LaneCurves,
  frame: Frame,
  { evaluation, keeper }: Ground,
): Item[] {
  if (lane.order !== 0) return []
  const own = { name: lane.curve, order: 0, curve, f, unseen }
  const drawn = [own, ...over].filter((d) => d.order === 0 && !d.unseen)
  const moving = new Set(evaluation.study.sliders.filter((s) => s.place).map((s) => s.name))
  // A point in the plane is where its own body is.
  for (const { mark } of marked) if (mark.kind === 'body' && mark.free) moving.delete(mark.place)
  return placesAlong(evaluation, lane.curve)
    .filter(({ text }) => moving.has(text))
    .flatMap(({ text, value }) =>
      drawn.flatMap((one): Item[] => {
        const { reach } = one.curve
        const y = value < reach.from || value > reach.to ? NaN : one.f.value(value)
        const [px, py] = [toPixelX(frame, value), toPixelY(frame, y)]
        const isSeen = px >= 0 && px <= frame.width && py >= 0 && py <= frame.height
        if (!isSeen) return []
        return keeper.keep(`${lane.id}.place.${text}.${one.name}`, [px, py], (): Item[] => [
          {
            kind: 'dot',
            key: `place.${text}.${one.name}`,
            layer: 'points',
            x: round(px),
            y: round(py),
            ink: 'place',
            place: text,
            shape: 'diamond',
            reach: 6,
            chosen: false,
          },
        ])
      }),
    )
}

/** A dotted line through all lanes at each place that means something there. */
const placeGuides = (lane: Lane, frame: Frame, { evaluation, keeper }: Ground): Item[] =>
  placesAlong(evaluation, lane.curve).flatMap((place) => {
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

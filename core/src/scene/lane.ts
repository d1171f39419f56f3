import type { CurveResult, DrawnFunction } from '../statements/contract'
import { formatPower, formatTiny } from '../vocabulary/numbers'
import { type Finding, hiddenFeatures, hiddenSentence } from './findings'
import { canBeDrawn, type Frame, toPixelY } from './frame'
import { insetFrame, makeInset } from './inset'
import type { Item } from './items'
import { type Drawn, fittedHeights, reachedBy, shownHeights } from './laneHeights'
import { curveInk } from './looks'
import type { LaneScene, PlacedTick } from './picture'
import { isClear, labelBox, noObstacles } from './obstacles'
import { round, sampleCurve, type Stroke } from './sampleCurve'
import { summarise } from './summary'
import { axisTicks } from './ticks'
import type { Ground, Lane, LaneCurves } from './ground'
import { laneItems, overlaid, type Overlaid } from './laneItems'
import { laneTitle } from './laneTitle'
import { boxInCorner, freeCorner } from './corners'
import { textWidth } from './textWidth'

/** "the frame runs from x = 0 to 1·10⁻³¹⁰: too narrow to be drawn" */
function tooNarrowOrWide(what: string, [from, to]: readonly [number, number]): string {
  const show = (v: number) => (Math.abs(v) < 1e9 ? formatTiny(v, 12) : formatPower(v, 12))
  const fault = to - from > 1 ? 'wide' : 'narrow'
  return `This frame runs from ${what} = ${show(from)} to ${show(to)}: too ${fault} to be drawn.`
}

/** What a lane shows; where its curve cannot be drawn, why. */
export function makeLane(lane: Lane, ground: Ground): LaneScene {
  const { evaluation, viewport, x, width, keeper } = ground
  const found = evaluation.curves.get(lane.curve)
  const height = viewport.heights[lane.id] ?? 0
  const title = laneTitle(lane)
  if (!found?.ok) return emptyLane(lane, ground, null, `${title} cannot be drawn yet.`)
  if (width <= 0 || height <= 0) return emptyLane(lane, ground, null)
  if (!ground.across) {
    return emptyLane(lane, ground, tooNarrowOrWide(evaluation.study.variable.letter, x))
  }
  const curves = curvesOfLane(lane, found.curve, ground)
  const y = heightsOf(lane, curves, ground)
  if (!canBeDrawn(y)) {
    return emptyLane(lane, ground, tooNarrowOrWide(`the height of ${title}`, y))
  }
  const key = `${lane.id}.frame`
  const frame = keeper.keep(key, [x, y, width, height], (): Frame => ({ x, y, width, height }))
  return drawLane(lane, curves, frame, ground)
}

function emptyLane(
  lane: Lane,
  { viewport, keeper }: Ground,
  undrawn: string | null,
  summary = undrawn ?? '',
): LaneScene {
  const title = laneTitle(lane)
  const height = viewport.heights[lane.id] ?? 0
  return keeper.keep(`lane.${lane.id}`, [height, title, undrawn, summary], () => ({
    id: lane.id,
    curve: lane.curve,
    order: lane.order,
    title,
    height,
    y: [-1, 1] as const,
    ticks: [],
    items: [],
    summary,
    outside: false,
    unseen: false,
    undrawn,
    hidden: null,
    rangeCorner: null,
    hiddenCorner: null,
    inset: null,
  }))
}

function curvesOfLane(lane: Lane, curve: CurveResult, ground: Ground): LaneCurves {
  const { keep } = ground.keeper
  const { curves } = ground.evaluation
  const isHidden = (name: string, order: number) => ground.lookOf(name, order)?.hidden === true
  const f = keep(`${lane.id}.f`, [curve, lane.order], () => curve.drawn(lane.order))
  const over = lane.overlays.flatMap(({ curve: name, order }) => {
    const other = curves.get(name)
    if (!other?.ok) return []
    const drawn = keep(`${lane.id}.over.${name}.${order}`, [other.curve, order], () =>
      other.curve.drawn(order),
    )
    return [{ name, order, curve: other.curve, f: drawn, unseen: isHidden(name, order) }]
  })
  const shown = [{ curve: lane.curve, order: lane.order }, ...lane.overlays]
  const marked = shown.flatMap((s) => ground.marksOf.get(`${s.curve}:${s.order}`) ?? [])
  const unseen = isHidden(lane.curve, lane.order)
  return { curve, f, over, marked, unseen, index: [...curves.keys()].indexOf(lane.curve) }
}

/**
 * How wide the frame must be for a lane with equal scale to show all of its heights; 0 where it has
 * another scale, or nothing to show.
 */
export function widthForEqualScale(lane: Lane, ground: Ground): number {
  const { evaluation, viewport, width } = ground
  const height = viewport.heights[lane.id] ?? 0
  const found = evaluation.curves.get(lane.curve)
  if (!lane.equalScale || lane.frame || !found?.ok || !(height > 0)) return 0
  const [low, high] = fittedOf(lane, curvesOfLane(lane, found.curve, ground), ground)
  return ((high - low) / height) * width
}

function heightsOf(lane: Lane, curves: LaneCurves, ground: Ground) {
  const { x, width, viewport, keeper } = ground
  const height = viewport.heights[lane.id] ?? 0
  const fitted = fittedOf(lane, curves, ground)
  const held = viewport.held?.get(lane.id)
  const [y0, y1] = shownHeights(lane, held, fitted, x, { width, height })
  return keeper.keep(`${lane.id}.y`, [y0, y1], () => [y0, y1] as const)
}

function fittedOf(lane: Lane, { curve, f, over }: LaneCurves, ground: Ground) {
  const { keeper, evaluation } = ground
  const x = lane.equalScale ? ground.unwidened : ground.x
  // What a study opens on has round bounds; those someone has chosen are followed to the pixel.
  const isRound = evaluation.study.frame === null
  const reached = (ground.marksOf.get(`${lane.curve}:${lane.order}`) ?? []).flatMap(({ mark }) =>
    reachedBy(mark),
  )
  const seen = [Math.max(x[0], curve.reach.from), Math.min(x[1], curve.reach.to)]
  return keeper.keep(
    `${lane.id}.fit`,
    [f, ...seen, isRound, ...reached, ...over.map((o) => o.f)],
    () => {
      const drawn = (d: { f: DrawnFunction; curve: CurveResult }): Drawn => ({
        f: d.f,
        ...d.curve.reach,
        isOpen: d.curve.window !== null,
      })
      return fittedHeights(drawn({ f, curve }), over.map(drawn), x, reached, isRound)
    },
  )
}

const none: Stroke[] = []
const noInset = { inset: null, tied: [] } as const

/** The numbers of the ticks begin so far from the left edge, in pixels. */
const tickLeft = 6

/** Everything a lane shows, from the ground up. */
function drawLane(lane: Lane, curves: LaneCurves, frame: Frame, ground: Ground): LaneScene {
  const { keep } = ground.keeper
  const { study } = ground.evaluation
  const { curve, f, unseen } = curves
  const { height } = frame
  const title = laneTitle(lane)
  const key = (part: string) => `${lane.id}.${part}`
  const strokes = unseen ? none : strokesOf(lane, curves, frame, ground)
  const over = overlaid(lane, curves, frame, ground)
  const all = [strokes, ...over.map((one) => one.strokes)]
  const { numbers } = study.display
  const ticks = keep(key('ticks'), [frame.y, height, numbers, ground.type, ...all], () =>
    axisTicks(...frame.y, height / ground.type, 48).map(({ value, text }): PlacedTick => {
      const at = round(toPixelY(frame, value))
      const box = labelBox({ x: tickLeft, y: at - 4, text, anchor: 'start' }, ground.type)
      const isSilent = !numbers || !isClear(box, { ...noObstacles, strokes: all.flat() })
      return isSilent ? { at, text, silent: true } : { at, text }
    }),
  )
  const outside = keep(
    key('outside'),
    [unseen, ...all],
    () =>
      (!unseen || over.length > 0) &&
      !all.flat().some((s) => s.some((v, i) => i % 2 === 1 && v >= 0 && v <= height)),
  )
  const finding = ground.findings.get(lane.curve)
  const hidden = unseen ? null : hiddenIn(lane, finding, frame, strokes, ground)
  const zoomed = unseen ? noInset : insetOf(lane, curves, frame, strokes, ground)
  const said = wordsOf(lane, hidden, frame, strokes, over, zoomed.inset, ground)
  const items = laneItems(lane, curves, frame, ground, {
    ticks,
    strokes,
    over,
    tied: zoomed.tied,
    words: said.boxes,
  })
  const shown = [
    ...(unseen ? [] : [{ curve, order: lane.order, f }]),
    ...curves.over.filter((o) => !o.unseen),
  ]
  const facts = shown.flatMap((one) => [one.f, one.curve, one.order])
  const summary = keep(key('summary'), [study.variable, study.decimals, ...facts], () =>
    shown.length === 0
      ? `${title} is not shown now.`
      : shown
          .map((one) => {
            const named = laneTitle({ curve: one.curve.name, order: one.order })
            return summarise(named, one.curve, one.order, one.f, study)
          })
          .join(' '),
  )
  const { inset } = zoomed
  return keep(
    key('scene'),
    [frame.y, height, ticks, summary, outside, unseen, hidden, inset, title, said, ...items],
    (): LaneScene => ({
      id: lane.id,
      curve: lane.curve,
      order: lane.order,
      title,
      height,
      y: frame.y,
      ticks,
      items,
      summary,
      outside,
      unseen,
      undrawn: null,
      hidden,
      rangeCorner: said.range,
      hiddenCorner: said.hidden,
      inset,
    }),
  )
}

/** The room for the heights of a lane, and for what does not show with its two buttons, in pixels. */
const rangeSize = { width: 245, height: 20 }
/** Without a span the stretch is told as well. */
const stretchWidth = 65
const buttonsWidth = 190
const hiddenHeight = 30
/** A derivative has its band at the foot. */
const footHeight = 22

/** Where a lane's own words stand: in corners that no curve passes, or nowhere on the picture. */
function wordsOf(
  lane: Lane,
  hidden: LaneScene['hidden'],
  frame: Frame,
  strokes: readonly Stroke[],
  over: Overlaid,
  inset: LaneScene['inset'],
  { keeper, evaluation, type }: Ground,
) {
  const strokesOfAll = [strokes, ...over.map((one) => one.strokes)]
  const found = evaluation.curves.get(lane.curve)
  const isOpen = found?.ok === true && found.curve.window !== null
  const key = [frame, hidden, inset, isOpen, type, ...strokesOfAll]
  return keeper.keep(`${lane.id}.words`, key, () => {
    const all = strokesOfAll.flat()
    const foot = lane.order === 1 || lane.order === 2 ? footHeight : 0
    const kept = inset
      ? [
          {
            left: inset.left,
            right: inset.left + inset.width,
            top: inset.top,
            bottom: inset.top + inset.height,
          },
        ]
      : []
    const rangeWords = {
      width: (rangeSize.width + (isOpen ? stretchWidth : 0)) * type,
      height: rangeSize.height * type,
    }
    const range = freeCorner(frame, rangeWords, all, kept, foot)
    const boxes = range ? [...kept, boxInCorner(range, frame, rangeWords, foot)] : kept
    if (!hidden) return { range, hidden: null, boxes }
    const size = { width: (textWidth(hidden.sentence) + buttonsWidth) * type, height: hiddenHeight }
    const corner = freeCorner(frame, size, all, boxes, foot)
    return {
      range,
      hidden: corner,
      boxes: corner ? [...boxes, boxInCorner(corner, frame, size, foot)] : boxes,
    }
  })
}

/** The curve as strokes: quick ones while something moves, careful ones when it has ended. */
function strokesOf(lane: Lane, { curve, f }: LaneCurves, frame: Frame, ground: Ground): Stroke[] {
  const { keep, known } = ground.keeper
  const { from, to } = curve.reach
  const sampled = [f, from, to, frame]
  const sample = (care: boolean) => () => sampleCurve(f, from, to, frame, care)
  return (
    known<Stroke[]>(`${lane.id}.strokes`, sampled) ??
    (ground.viewport.hurried
      ? keep(`${lane.id}.quick`, sampled, sample(false))
      : keep(`${lane.id}.strokes`, sampled, sample(true)))
  )
}

/** What this frame cannot show of what was found about the curve. */
function hiddenIn(
  lane: Lane,
  finding: Finding | undefined,
  frame: Frame,
  strokes: readonly Stroke[],
  { evaluation, keeper }: Ground,
): LaneScene['hidden'] {
  if (!finding || finding.stale || lane.order !== 0) return null
  const { letter } = evaluation.study.variable
  const curve = evaluation.curves.get(lane.curve)
  const window = curve?.ok === true ? curve.curve.window : null
  return keeper.keep(`${lane.id}.hidden`, [finding, frame, letter, strokes, window], () => {
    const found = hiddenFeatures(finding, frame, window)
    if (!found) return null
    const { from, to } = found
    const sentence = hiddenSentence(found, letter)
    return { sentence, from, to }
  })
}

/** The inset of a lane and what ties it to the stretch it enlarges. */
function insetOf(
  lane: Lane,
  { curve, f, index }: LaneCurves,
  frame: Frame,
  strokes: readonly Stroke[],
  { findings, keeper }: Ground,
): { inset: LaneScene['inset']; tied: readonly Item[] } {
  const stretch = lane.inset && canBeDrawn(lane.inset) ? lane.inset : null
  if (!stretch) return { inset: null, tied: [] }
  const finding = findings.get(lane.curve)
  const inset = keeper.keep(`${lane.id}.inset`, [stretch, f, frame, strokes, finding, index], () =>
    makeInset(
      stretch,
      f,
      [curve.reach.from, curve.reach.to],
      frame,
      strokes,
      finding,
      curveInk(index),
    ),
  )
  if (!inset) return { inset, tied: [] }
  const tied = keeper.keep(`${lane.id}.inset.tie`, [inset, frame, f], () =>
    insetFrame(inset, frame, f),
  )
  return { inset, tied }
}

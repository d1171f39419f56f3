import type { CurveResult, DrawnFunction, Mark, Sampled } from '../statements/contract'
import { compileTree } from '../evaluate/compile'
import { equalHeights } from '../study/framing'
import { kindOf, type Statement } from '../statements'
import type { LineLook, SpanText } from '../vocabulary/members'
import { freeSlider, readNumber } from '../vocabulary/values'
import { formatPower, formatShort, formatTiny } from '../vocabulary/numbers'
import type { Evaluation } from '../results/evaluate'
import type { Study } from '../study/schema'
import { unitOfDerivative } from '../vocabulary/units'
import {
  bandItems,
  type Finding,
  guideItems,
  hiddenFeatures,
  hiddenSentence,
  leavesFoot,
} from './findings'
import { fitHeights, fitSpan, placeBetween } from './fit'
import { type Inset, insetFrame, makeInset } from './inset'
import type { Ink, Item } from './items'
import { type LabelSides, placeLabels } from './labels'
import { labelNames } from './labelNames'
import { captionSpot, markItems, type Sample } from './marks'
import { canBeDrawn, type Frame, toPixelX, toPixelY } from './frame'
import { round, sampleCurve, type Stroke, strokesToPath } from './sampleCurve'
import { axisTicks, piTicks } from './ticks'

/** What the picture needs from the screen. */
export interface Viewport {
  width: number
  /** The height of each lane by its id. */
  heights: Readonly<Record<string, number>>
  /** Vertical frames to keep while a gesture runs, by lane. */
  held?: ReadonlyMap<string, readonly [number, number]>
  /** The horizontal frame to keep while a gesture runs. */
  heldX?: readonly [number, number]
  /** Something is under way: curves are sampled quickly, and with care when it has ended. */
  hurried?: boolean
}

export interface PlacedTick {
  at: number
  text: string
}

export interface LaneScene {
  id: string
  curve: string
  order: number
  /** q′ */
  title: string
  y: readonly [number, number]
  height: number
  ticks: readonly PlacedTick[]
  items: readonly Item[]
  /** One sentence on what is seen, for those who do not see it. */
  summary: string
  /** No part of the curve lies inside the frame. */
  outside: boolean
  /** Why nothing is drawn although there is a curve: a frame that no screen can lay out. */
  undrawn: string | null
  /** What this frame cannot show; said at the foot where the curve runs through the top. */
  hidden: { sentence: string; from: number; to: number; atFoot: boolean } | null
  inset: Inset | null
}

/** The flag of a place on the ruler. */
export interface Flag {
  text: string
  value: number
  at: number
  /** The slider that moves when the flag does, or null for a typed number or a tangle. */
  slider: string | null
  /** A typed number, which is replaced when the flag moves. */
  fixed: boolean
}

export interface Scene {
  x: readonly [number, number]
  width: number
  ticks: readonly PlacedTick[]
  lanes: readonly LaneScene[]
  flags: readonly Flag[]
  bars: readonly Bar[]
}

/** A span as a bar on the ruler. */
export interface Bar {
  span: SpanText
  from: { value: number; at: number }
  to: { value: number; at: number }
  /** Bars that would lie on each other stand in rows. */
  row: number
}

/** Remembers what was made from the same ingredients: unchanged parts keep their identity. */
function createKeeper() {
  let kept = new Map<string, { from: readonly unknown[]; value: unknown }>()
  let next: typeof kept = new Map()
  return {
    keep<T>(key: string, from: readonly unknown[], make: () => T): T {
      const known = kept.get(key)
      const entry =
        known &&
        known.from.length === from.length &&
        known.from.every((v, i) => Object.is(v, from[i]))
          ? known
          : { from, value: make() }
      next.set(key, entry)
      return entry.value as T
    },
    /** What was made before from just these ingredients, if anything. */
    known<T>(key: string, from: readonly unknown[]): T | undefined {
      const known = kept.get(key)
      const same = known?.from.every((v, i) => Object.is(v, from[i])) === true
      if (!known || !same) return undefined
      next.set(key, known)
      return known.value as T
    },
    /** Forgets what the finished picture no longer has. */
    turn() {
      kept = next
      next = new Map()
    },
  }
}

export type Findings = ReadonlyMap<string, Finding>
export type SceneMaker = (evaluation: Evaluation, viewport: Viewport, findings?: Findings) => Scene
const nothingFound: Findings = new Map()

/** Makes a function from results to a display list; it redoes only what has changed. */
export function createSceneMaker(): SceneMaker {
  const keeper = createKeeper()
  const sides = new Map<string, LabelSides>()
  return (evaluation, viewport, findings = nothingFound) => {
    const scene = makeScene(evaluation, viewport, findings, keeper, sides)
    keeper.turn()
    return scene
  }
}

/** The horizontal frame of a study: as set, or the span of its curves with a little room. */
export function frameOf(study: Study, evaluation: Evaluation): [number, number] {
  if (study.frame) return study.frame
  const spans = [...evaluation.curves.values()].flatMap((c) =>
    c.ok ? [[c.curve.from, c.curve.to] as const] : [],
  )
  if (spans.length === 0) return [-10.7, 10.7]
  return fitSpan(Math.min(...spans.map(([a]) => a)), Math.max(...spans.map(([, b]) => b)))
}

/** "the frame runs from x = 0 to 1·10⁻³¹⁰: too narrow to be drawn" */
function tooNarrowOrWide(what: string, [from, to]: readonly [number, number]): string {
  const show = (v: number) => (Math.abs(v) < 1e9 ? formatTiny(v, 12) : formatPower(v, 12))
  const fault = to - from > 1 ? 'wide' : 'narrow'
  return `This frame runs from ${what} = ${show(from)} to ${show(to)}: too ${fault} to be drawn.`
}

/** Room for the band and a little air above it, in pixels. */
const footRoom = 24

/** q′, or ∫q for the area from the beginning of the span. */
export const laneTitle = ({ curve, order }: { curve: string; order: number }) =>
  order < 0 ? `∫${curve}` : curve + '′'.repeat(order)

const curveInk = (index: number): Ink => `curve${((index % 5) + 1) as 1 | 2 | 3 | 4 | 5}`

function makeScene(
  evaluation: Evaluation,
  viewport: Viewport,
  findings: Findings,
  { keep, known }: ReturnType<typeof createKeeper>,
  /** For each lane which side its labels stood on last. */
  sides: Map<string, LabelSides>,
): Scene {
  const { study, curves, places, lines } = evaluation
  const { width } = viewport
  const [x0, x1] = viewport.heldX ?? frameOf(study, evaluation)
  const x = keep('x', [x0, x1], () => [x0, x1] as const)
  const across = canBeDrawn(x)
  const { grid: showsGrid, axes: showsAxes, ticks: tickKind } = study.display
  const ticks = keep('ticks', [x, width, tickKind], () =>
    (!across
      ? []
      : tickKind === 'pi'
        ? piTicks(x0, x1, width, 70)
        : axisTicks(x0, x1, width, 70, true)
    ).map(({ value, text }) => ({
      at: round(toPixelX({ x, width }, value)),
      text,
    })),
  )
  const follow: Sample = (of) => sampledOf(of, curves)
  const lineOf = new Map(study.lines.map((l) => [l.id, l]))
  const lookOf = keep('looks', study.lines, () => looksOf(study.lines))
  const marksOf = new Map<string, MarkOfLine[]>()
  for (const [id, result] of lines) {
    const look = lineOf.get(id)?.look
    if (look?.hidden) continue
    const carrier = result.marks.findIndex((m) => m.kind === 'dot')
    const named = labelNames(look, result.marks, (lane) => curves.get(lane.curve))
    result.marks.forEach((mark, i) => {
      const lane = `${mark.lane.curve}:${mark.lane.order}`
      const found = curves.get(mark.lane.curve)
      const dimmed = (found?.ok === true && found.curve.stale) || result.pending === true
      const list = marksOf.get(lane) ?? []
      if (list.length === 0) marksOf.set(lane, list)
      const captioned = i === Math.max(0, carrier)
      // A trail behind a point does not take the point's marker.
      const points = mark.kind === 'points' && carrier >= 0 ? {} : look
      const label = named(mark.id)
      list.push({ mark, line: id, label, dimmed, look, points, captioned })
    })
  }
  const names = [...curves.keys()]

  const lanes = study.lanes.flatMap((lane): LaneScene[] => {
    const found = curves.get(lane.curve)
    const title = laneTitle(lane)
    const height = viewport.heights[lane.id] ?? 0
    const base = { id: lane.id, curve: lane.curve, order: lane.order, title, height }
    const empty = (undrawn: string | null, summary = undrawn ?? '') =>
      keep(`lane.${lane.id}`, [height, title, undrawn, summary], () => ({
        ...base,
        y: [-1, 1] as const,
        ticks: [],
        items: [],
        summary,
        outside: false,
        undrawn,
        hidden: null,
        inset: null,
      }))
    if (!found?.ok) return [empty(null, `${title} cannot be drawn yet.`)]
    if (width <= 0 || height <= 0) return [empty(null)]
    if (!across) return [empty(tooNarrowOrWide(study.variable.letter, x))]
    const { curve } = found
    const key = (part: string) => `${lane.id}.${part}`
    const f = keep(key('f'), [curve, lane.order], () => curve.drawn(lane.order))
    const over = lane.overlays.flatMap(({ curve: name, order }) => {
      const other = curves.get(name)
      if (!other?.ok) return []
      const drawn = keep(key(`over.${name}.${order}`), [other.curve, order], () =>
        other.curve.drawn(order),
      )
      return [{ name, order, curve: other.curve, f: drawn }]
    })
    const held = viewport.held?.get(lane.id)
    const seen = [Math.max(x0, curve.from), Math.min(x1, curve.to)] as const
    // A point that a line leads to is part of what has to be seen, and the foot of an area is.
    const reached = (marksOf.get(`${lane.curve}:${lane.order}`) ?? []).flatMap(({ mark }) =>
      mark.kind === 'joint'
        ? [mark.toY]
        : mark.kind === 'strips' || (mark.kind === 'shade' && !mark.against)
          ? [0]
          : [],
    )
    const fitted = keep(key('fit'), [f, ...seen, ...reached, ...over.map((o) => o.f)], () => {
      const [least, most] =
        seen[0] < seen[1] ? fitHeights(f, ...seen) : fitHeights(f, curve.from, curve.to)
      const air = (Math.max(most, ...reached) - Math.min(least, ...reached)) * 0.06
      const own: [number, number] = [
        Math.min(least, ...reached.map((y) => y - air)),
        Math.max(most, ...reached.map((y) => y + air)),
      ]
      return over.reduce((all, o) => {
        const [a, b] = [Math.max(x0, o.curve.from), Math.min(x1, o.curve.to)]
        if (!(a < b)) return all
        const [low, high] = fitHeights(o.f, a, b)
        return [Math.min(all[0], low), Math.max(all[1], high)] as [number, number]
      }, own)
    })
    // The band at the foot of a derivative's lane does not stand on its curve.
    const foot = lane.order === 1 || lane.order === 2 ? footRoom / Math.max(1, height) : 0
    const withFoot: readonly [number, number] =
      foot > 0 && foot < 0.4
        ? [fitted[0] - ((fitted[1] - fitted[0]) * foot) / (1 - foot), fitted[1]]
        : fitted
    // What someone has set is shown at once; what follows the curve waits for a gesture to end.
    const heights = lane.frame ?? held ?? withFoot
    const [y0, y1] = lane.equalScale ? equalHeights(heights, x, width, height) : heights
    const y = keep(key('y'), [y0, y1], () => [y0, y1] as const)
    if (!canBeDrawn(y)) return [empty(tooNarrowOrWide(`the height of ${title}`, y))]
    const frame = keep(key('frame'), [x, y, width, height], (): Frame => ({ x, y, width, height }))
    const laneTicks = keep(key('ticks'), [y, height], () =>
      axisTicks(y0, y1, height, 48).map(({ value, text }) => ({
        at: round(toPixelY(frame, value)),
        text,
      })),
    )
    const grid = keep(key('grid'), [ticks, laneTicks, frame, showsGrid, showsAxes], () =>
      gridItems(frame, ticks, laneTicks, showsGrid, showsAxes),
    )
    const sampled = [f, curve.from, curve.to, frame]
    const sample = (care: boolean) => () => sampleCurve(f, curve.from, curve.to, frame, care)
    const strokes =
      known<Stroke[]>(key('strokes'), sampled) ??
      (viewport.hurried
        ? keep(key('quick'), sampled, sample(false))
        : keep(key('strokes'), sampled, sample(true)))
    const outside = keep(
      key('outside'),
      [strokes],
      () => !strokes.some((s) => s.some((v, i) => i % 2 === 1 && v >= 0 && v <= height)),
    )
    const index = names.indexOf(lane.curve)
    const look = lookOf(lane.curve, lane.order)
    const drawn = keep(key('curve'), [strokes, index, curve.stale, look], (): Item =>
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
    const caption = keep(key('caption'), [strokes, look, index], () =>
      captionItems(strokes, look, inkOf(look) ?? curveInk(index)),
    )
    const overStrokes: Stroke[] = []
    const overlaid = over.map((o): Item => {
      const part = `over.${o.name}.${o.order}`
      const ingredients = [o.f, o.curve, frame, viewport.hurried]
      const strokes = keep(key(`${part}.strokes`), ingredients, () =>
        sampleCurve(o.f, o.curve.from, o.curve.to, frame, viewport.hurried !== true),
      )
      overStrokes.push(...strokes)
      return keep(key(`${part}.path`), [strokes, o.curve], () => ({
        kind: 'path',
        key: part,
        layer: 'ground',
        d: strokesToPath(strokes),
        ink: curveInk(names.indexOf(o.name)),
        width: 3,
        order: o.order,
        dimmed: o.curve.stale,
      }))
    })
    const finding = findings.get(lane.curve)
    const open = study.lanes.flatMap((l) => (l.curve === lane.curve ? [l.order] : [])).join()
    const foundItems = finding
      ? keep(key('found'), [finding, frame, open, index], () => [
          ...bandItems(lane.curve, lane.order, finding, frame),
          ...guideItems(lane.order, open.split(',').map(Number), finding, frame, curveInk(index)),
        ])
      : []
    const hidden =
      finding && !finding.stale && lane.order === 0
        ? keep(key('hidden'), [finding, frame, study.variable.letter, strokes], () => {
            const found = hiddenFeatures(finding, frame)
            if (!found) return null
            const { from, to } = found
            const sentence = hiddenSentence(found, study.variable.letter)
            return { sentence, from, to, atFoot: leavesFoot(strokes, frame, sentence) }
          })
        : null
    const stretch = lane.inset && canBeDrawn(lane.inset) ? lane.inset : null
    const inset = stretch
      ? keep(key('inset'), [stretch, f, frame, strokes, finding, index], () =>
          makeInset(stretch, f, [curve.from, curve.to], frame, strokes, finding, curveInk(index)),
        )
      : null
    const tied = inset
      ? keep(key('inset.tie'), [inset, frame, f], () => insetFrame(inset, frame, f))
      : []
    const guides = places.flatMap((place) => {
      const at = toPixelX(frame, place.value)
      if (!(at >= 0 && at <= width)) return []
      return keep(key(`guide.${place.text}`), [at, height], (): Item[] => [
        {
          kind: 'path',
          key: `guide.${place.text}`,
          layer: 'marks',
          d: `M${round(at)} 0V${height}`,
          ink: 'place',
          width: 1.5,
          dotted: true,
        },
      ])
    })
    const shown = [{ curve: lane.curve, order: lane.order }, ...lane.overlays]
    const marked = shown.flatMap((s) => marksOf.get(`${s.curve}:${s.order}`) ?? [])
    const marks = marked.flatMap((m) =>
      keep(key(`mark.${m.line}.${m.mark.id}`), [m.mark, frame, m.dimmed, m.look, m.label], () =>
        itemsOf(m, frame, follow),
      ),
    )
    if (!sides.has(lane.id)) sides.set(lane.id, new Map())
    // Dots come last, so that nothing is drawn over what can be taken hold of.
    const items = [
      ...grid,
      ...foundItems.filter((i) => i.kind === 'rect' || i.key.startsWith('band')),
      ...guides,
      ...marks.filter(({ layer }) => layer === 'insides'),
      ...tied,
      ...overlaid,
      drawn,
      ...caption,
      ...foundItems.filter((i) => i.kind !== 'rect' && !i.key.startsWith('band')),
      ...keep(key('marks'), [width, height, strokes, ...overStrokes, ...marks], () =>
        placeLabels(
          marks.filter(({ layer }) => layer !== 'points' && layer !== 'insides'),
          width,
          height,
          [...strokes, ...overStrokes],
          sides.get(lane.id),
        ),
      ),
      ...firstOfEach(marks.filter(({ layer }) => layer === 'points')),
    ]
    const summary = keep(
      key('summary'),
      [f, curve, study.variable, study.decimals, lane.order],
      () => summarise(title, curve, lane.order, f, study),
    )
    return [
      keep(
        key('scene'),
        [y, height, laneTicks, summary, outside, hidden, inset, title, ...items],
        () => ({
          ...base,
          y,
          ticks: laneTicks,
          items,
          summary,
          outside,
          undrawn: null,
          hidden,
          inset,
        }),
      ),
    ]
  })
  if (!across) return { x, width, ticks, lanes, flags: [], bars: [] }

  const sliderNames = study.sliders.map((s) => `${s.name}${s.place}`).join()
  const flags = keep('flags', [places, x, width, sliderNames], () =>
    places.map(({ text, value }): Flag => {
      // Which slider a place hangs on does not change with the value of the slider.
      const slider = keep(`flag.${text}`, [sliderNames], () => {
        const read = readNumber(text, study.sliders)
        return read.ok ? (freeSlider(read.tree, study.sliders)?.name ?? null) : null
      })
      return {
        text,
        value,
        at: round(toPixelX({ x, width }, value)),
        slider,
        fixed: slider === null && /^[\s\d.+\-−E]+$/.test(text),
      }
    }),
  )
  const bars = keep('bars', [evaluation.spans, x, width], () =>
    inRows(
      evaluation.spans.map(({ text, from, to }) => ({
        span: text,
        from: { value: from, at: round(toPixelX({ x, width }, from)) },
        to: { value: to, at: round(toPixelX({ x, width }, to)) },
      })),
    ),
  )
  return { x, width, ticks, lanes, flags, bars }
}

const mostBarRows = 2

/** Puts each bar into the first row where it stands free, or the last one. */
function inRows(bars: Omit<Bar, 'row'>[]): Bar[] {
  const ends: number[] = []
  return bars.map((bar) => {
    const free = ends.findIndex((end) => bar.from.at > end + 8)
    const row = free >= 0 ? free : Math.min(ends.length, mostBarRows - 1)
    ends[row] = Math.max(ends[row] ?? -Infinity, bar.to.at)
    return { ...bar, row }
  })
}

/** The function that a mark follows; nothing where its curve cannot be drawn. */
function sampledOf(of: Sampled, curves: Evaluation['curves']): (x: number) => number {
  if ('formula' in of) return compileTree(of.formula, { variable: of.letter }).value
  const found = curves.get(of.curve)
  if (!found?.ok) return () => NaN
  const { value } = found.curve.drawn(of.order)
  return value
}

/** A mark with the line it comes from. */
interface MarkOfLine {
  mark: Mark
  line: string
  /** The name by which its label is moved and hidden. */
  label: string
  dimmed: boolean
  look: LineLook | undefined
  points: Pick<LineLook, 'marker' | 'markerWidth'> | undefined
  /** It carries the words someone has put to its line. */
  captioned: boolean
}

/** What is drawn for a mark, as its line wants it. */
function itemsOf(
  { mark, line, label, dimmed, look, points, captioned }: MarkOfLine,
  frame: Frame,
  sample: Sample,
): Item[] {
  const key = `${line}.${mark.id}`
  const words = captioned ? look?.label : undefined
  const plain = markItems(mark, frame, key, sample, points)
  const items = withWords(plain, words, mark, captionSpot(mark, frame, sample), key)
  return items.flatMap((item) => {
    const shown = withLook(item, look)
    const owned =
      shown.kind === 'label' && shown.beside ? withOwner(shown, line, label, look) : shown
    if (!owned) return []
    return [dimmed ? { ...owned, dimmed: true } : owned]
  })
}

/** A label of a line's point: where it was moved to, or nothing where it is hidden. */
function withOwner(
  item: Item & { kind: 'label' },
  line: string,
  label: string,
  look: LineLook | undefined,
): Item | null {
  if (look?.without?.includes(label)) return null
  const offset = look?.moved?.[label]
  return { ...item, owner: { line, label }, ...(offset ? { offset } : {}) }
}

/** Adds the words someone has put to a line: to the label of its point, or as one of their own. */
function withWords(
  items: Item[],
  words: string | undefined,
  mark: Mark,
  spot: ReturnType<typeof captionSpot>,
  key: string,
): Item[] {
  if (!words) return items
  const label = items.find((i) => i.kind === 'label' && i.beside)
  if (label) {
    return items.map((item) =>
      item === label && item.kind === 'label' ? { ...item, text: `${words} ${item.text}` } : item,
    )
  }
  if (!spot) return items
  const { x, y, beside } = spot
  return [
    ...items,
    {
      kind: 'label',
      key: `${key}.words`,
      layer: mark.layer === 'points' ? 'marks' : mark.layer,
      x,
      y: y - 8,
      text: words,
      ink: mark.kind === 'dot' || mark.kind === 'line' ? 'place' : 'span',
      anchor: beside ? 'start' : 'middle',
      ...(beside ? { beside: { x, y } } : {}),
    },
  ]
}

const inkOf = (look: LineLook | undefined): Ink | null =>
  look?.colour === undefined
    ? null
    : (
        {
          kelp: 'curve1',
          slate: 'curve2',
          plum: 'curve3',
          moss: 'curve4',
          umber: 'curve5',
          rust: 'place',
          ochre: 'span',
        } as const
      )[look.colour]

/** An item as someone wants its line drawn. */
function withLook(item: Item, look: LineLook | undefined): Item {
  if (!look || item.kind === 'rect') return item
  const ink = inkOf(look) ?? item.ink
  if (item.kind !== 'path') return { ...item, ink }
  const dash = look.dash === 'usual' ? undefined : look.dash
  return {
    ...item,
    ink,
    width: look.width ?? item.width,
    ...(dash ? { dash, dotted: false } : {}),
  }
}

/**
 * The look of each curve and derivative. A derivative has that of the line that stands for it, and
 * else the colour and stroke of its curve's family, but not its words.
 */
function looksOf(
  lines: readonly Statement[],
): (curve: string, order: number) => LineLook | undefined {
  const looks = new Map<string, LineLook>()
  for (const line of lines) {
    const stands = kindOf(line).drawn?.stands?.(line)
    if (!stands || !line.look) continue
    const key = `${stands.curve}:${stands.order}`
    if (!looks.has(key)) looks.set(key, line.look)
  }
  const made = new Map<string, LineLook | undefined>()
  return (curve, order) => {
    const own = looks.get(`${curve}:${order}`)
    if (order === 0) return own
    const key = `${curve}:${order}`
    const family = looks.get(`${curve}:0`)
    if (!made.has(key)) {
      const { hidden: _, label: __, ...shared } = family ?? {}
      made.set(key, family || own ? { ...shared, ...own } : undefined)
    }
    return made.get(key)
  }
}

/** The words someone has put to a curve, where it leaves the picture on the right. */
function captionItems(strokes: readonly Stroke[], look: LineLook | undefined, ink: Ink): Item[] {
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
      ink,
      anchor: 'end',
    },
  ]
}

/** Two lines at one place put their dots on one spot: one is enough, and a chosen one comes first. */
function firstOfEach(dots: readonly Item[]): Item[] {
  const chosen = new Map<string, Item>()
  for (const dot of dots) {
    if (dot.kind !== 'dot') continue
    const at = `${dot.x} ${dot.y}`
    if (!chosen.has(at) || (dot.chosen && !isChosen(chosen.get(at)!))) chosen.set(at, dot)
  }
  return [...chosen.values()]
}
const isChosen = (item: Item) => item.kind === 'dot' && item.chosen

function gridItems(
  frame: Frame,
  ticks: readonly PlacedTick[],
  laneTicks: readonly PlacedTick[],
  showsGrid: boolean,
  showsAxes: boolean,
): Item[] {
  const { width, height } = frame
  const across = laneTicks.map(({ at }) => `M0 ${at}H${width}`).join('')
  const down = ticks.map(({ at }) => `M${at} 0V${height}`).join('')
  const items: Item[] = showsGrid
    ? [{ kind: 'path', key: 'grid', layer: 'ground', d: across + down, ink: 'grid', width: 1 }]
    : []
  const zero = toPixelY(frame, 0)
  if (showsAxes && zero >= 0 && zero <= height) {
    items.push({
      kind: 'path',
      key: 'axis',
      layer: 'ground',
      d: `M0 ${round(zero)}H${width}`,
      ink: 'axis',
      width: 1,
    })
  }
  return items
}

function summarise(
  title: string,
  curve: CurveResult,
  order: number,
  f: DrawnFunction,
  study: Study,
): string {
  const { variable, decimals } = study
  const show = (v: number) => formatShort(v, decimals)
  const unit = unitOfDerivative(curve.unit, variable.unit, order)
  const { from, to } = curve
  const xs = Float64Array.from({ length: 201 }, (_, i) => placeBetween(from, to, i / 200))
  const ys = f.values(xs)
  let [low, high] = [-1, -1]
  ys.forEach((y, i) => {
    if (!Number.isFinite(y)) return
    if (low < 0 || y < ys[low]!) low = i
    if (high < 0 || y > ys[high]!) high = i
  })
  const over = `${title} over ${variable.letter} from ${show(from)} to ${show(to)}${variable.unit ? ` ${variable.unit}` : ''}`
  if (low < 0) return `${over} has no values.`
  const part = (i: number) => `about ${show(ys[i]!)} near ${variable.letter} = ${show(xs[i]!)}`
  const middle =
    ys[low] === ys[high]
      ? `is level at ${show(ys[low]!)}`
      : `lies between ${part(low)} and ${part(high)}`
  return `${over} ${middle}${unit ? `, in ${unit}` : ''}.`
}

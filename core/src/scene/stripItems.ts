import type { Mark } from '../statements/contract'
import type { Fill, Item } from './items'
import { type Frame, toPixelX, toPixelY } from './frame'
import { round } from './sampleCurve'

/** Below this width strips touch: their sides would be all one sees, in pixels. */
const leastSides = 3
/** Slivers narrower than this are tinted flat in place of hatched, in pixels. */
const leastHatch = 4
/** In slivers narrower than this the edge along the curve is level, in pixels. */
const leastCurved = 1.5
/** Steps along a curved edge, in pixels. */
const edgeStep = 4
const mostEdgeSteps = 60

type Real = (x: number) => number
/** A mark of strips with what is sampled for it: the curve, and tops that are not level. */
export type Strips = Pick<Mark & { kind: 'strips' }, 'strips' | 'slivers'> & {
  f: Real
  curved: ((strip: number, x: number) => number) | null
}

/** The top of a strip, as a parabola through three of its heights. */
export function topOf({ strips }: Pick<Strips, 'strips'>): Strips['curved'] {
  if (!strips.some((s) => s.top)) return null
  return (i, x) => {
    const { from, to, height, top } = strips[i]!
    if (!top) return height
    const t = (2 * (x - from)) / (to - from) - 1
    const [p, q, r] = top
    return q + (t * (r - p)) / 2 + (t * t * (p - 2 * q + r)) / 2
  }
}

/** All strips as one path for each sign, all over slivers as one, all short ones as one. */
export function stripItems(mark: Strips, frame: Frame, key: string): Item[] {
  const zero = held(frame, toPixelY(frame, 0))
  const seen = (from: number, to: number) =>
    toPixelX(frame, to) >= -2 && toPixelX(frame, from) <= frame.width + 2
  let [above, below] = ['', '']
  const width = pixelWidth(mark, frame)
  const sides = width >= leastSides
  if (sides || mark.curved) {
    for (const [i, last] of thinned(mark, frame)) {
      const { from, height } = mark.strips[i]!
      const { to } = mark.strips[last]!
      if (!seen(from, to)) continue
      const [left, right] = [round(toPixelX(frame, from)), round(toPixelX(frame, to))]
      const d = mark.curved
        ? `M${left} ${zero}${edge(frame, from, to, (x) => mark.curved!(i, x))}V${zero}Z`
        : `M${left} ${zero}V${held(frame, toPixelY(frame, height))}H${right}V${zero}Z`
      if (height >= 0) above += d
      else below += d
    }
  } else [above, below] = stairs(mark, frame, zero)
  const items: Item[] = []
  const area = (name: string, d: string, fill: Fill) => {
    if (d === '') return
    items.push({
      kind: 'path',
      key: `${key}.${name}`,
      layer: 'insides',
      d,
      ink: sides ? 'span' : 'none',
      width: 1,
      fill,
    })
  }
  area('above', above, 'strip')
  area('below', below, 'stripBelow')
  items.push(...sliverItems(mark, frame, key, width))
  return items
}

/** Strips without sides as one outline for each run of one sign. */
function stairs(mark: Strips, frame: Frame, zero: number): [above: string, below: string] {
  const found: [string, string] = ['', '']
  let run = -1
  let end = NaN
  for (const [i, last] of thinned(mark, frame)) {
    const { from, height } = mark.strips[i]!
    const [left, right] = [toPixelX(frame, from), toPixelX(frame, mark.strips[last]!.to)]
    if (right < -2 || left > frame.width + 2) continue
    const side = height >= 0 ? 0 : 1
    if (side !== run || left - end > 0.01) {
      if (run >= 0) found[run] += `V${zero}Z`
      found[side] += `M${round(left)} ${zero}`
    }
    found[side] += `V${held(frame, toPixelY(frame, height))}H${round(right)}`
    run = side
    end = right
  }
  if (run >= 0) found[run] += `V${zero}Z`
  return found
}

const pixelWidth = ({ strips }: Strips, frame: Frame) => {
  const first = strips[0]
  return first ? toPixelX(frame, first.to) - toPixelX(frame, first.from) : 0
}

/** Strips to draw, each with the last of its group: where many share a pixel one stands for all. */
function thinned({ strips }: Strips, frame: Frame): [first: number, last: number][] {
  const step = Math.max(1, Math.floor(strips.length / Math.max(1, frame.width)))
  return Array.from({ length: Math.ceil(strips.length / step) }, (_, k) => [
    k * step,
    Math.min(strips.length - 1, (k + 1) * step - 1),
  ])
}

function sliverItems(mark: Strips, frame: Frame, key: string, width: number): Item[] {
  let [over, short] = ['', '']
  const narrow = columns(frame)
  for (const { strip, from, to, area } of mark.slivers) {
    const [left, right] = [toPixelX(frame, from), toPixelX(frame, to)]
    if (right < -2 || left > frame.width + 2) continue
    const level = mark.strips[strip]?.height ?? 0
    const top = (x: number) => (mark.curved ? mark.curved(strip, x) : level)
    if (right - left < leastCurved) {
      // The mean height of f here is what the sliver's area leaves of its top.
      const high = top((from + to) / 2)
      const foot = high - area / (to - from)
      narrow.add(area > 0, (left + right) / 2, toPixelY(frame, high), toPixelY(frame, foot))
      continue
    }
    const start = `M${round(left)} ${held(frame, toPixelY(frame, top(from)))}`
    const upper = mark.curved ? edge(frame, from, to, top) : `H${round(right)}`
    const d = `${start}${upper}${edge(frame, to, from, mark.f)}Z`
    if (area > 0) over += d
    else short += d
  }
  over += narrow.path(true)
  short += narrow.path(false)
  const flat = width < leastHatch
  const item = (name: string, d: string, fill: Fill): Item[] =>
    d === ''
      ? []
      : [{ kind: 'path', key: `${key}.${name}`, layer: 'insides', d, ink: 'none', width: 0, fill }]
  return [
    ...item('over', over, flat ? 'overFlat' : 'over'),
    ...item('short', short, flat ? 'shortFlat' : 'short'),
  ]
}

/**
 * Slivers too narrow to be told apart, gathered by columns of a pixel: in each, what lies over and
 * what falls short is as tall as the tallest there.
 */
function columns(frame: Frame) {
  const count = Math.ceil(frame.width)
  const sides = [0, 1].map(() => ({
    top: new Float64Array(count).fill(Infinity),
    foot: new Float64Array(count).fill(-Infinity),
  }))
  return {
    add(over: boolean, at: number, y0: number, y1: number) {
      const column = Math.floor(at)
      if (!(column >= 0 && column < count) || !Number.isFinite(y0 + y1)) return
      const { top, foot } = sides[over ? 0 : 1]!
      top[column] = Math.min(top[column]!, y0, y1)
      foot[column] = Math.max(foot[column]!, y0, y1)
    },
    path(over: boolean): string {
      const { top, foot } = sides[over ? 0 : 1]!
      let d = ''
      for (let i = 0; i < count; i++) {
        if (top[i]! <= foot[i]!) d += `M${i} ${held(frame, top[i]!)}h1V${held(frame, foot[i]!)}h-1Z`
      }
      return d
    },
  }
}

/** A curved edge from one place to another, as lines. */
function edge(frame: Frame, from: number, to: number, f: (x: number) => number): string {
  const pixels = Math.abs(toPixelX(frame, to) - toPixelX(frame, from))
  const steps = Math.max(1, Math.min(mostEdgeSteps, Math.ceil(pixels / edgeStep)))
  let d = ''
  for (let i = 0; i <= steps; i++) {
    const x = from + ((to - from) * i) / steps
    const y = toPixelY(frame, f(x))
    if (Number.isFinite(y)) d += `L${round(toPixelX(frame, x))} ${held(frame, y)}`
  }
  return d
}

/** Heights far outside the frame are held near it: a file cannot carry any number. */
const held = (frame: Frame, y: number) =>
  round(Math.max(-2 * frame.height, Math.min(3 * frame.height, y)))

/** The area between a curve and the axis, or another curve. */
export function shadeItems(mark: Shade, frame: Frame, key: string): Item[] {
  if (mark.g) return shade(mark, frame, key, 'area')
  // What lies below the axis counts against what lies above it, and looks so.
  const above = { ...mark, f: (x: number) => Math.max(0, mark.f(x)) }
  const below = { ...mark, f: (x: number) => Math.min(0, mark.f(x)) }
  return [
    ...shade(above, frame, `${key}.above`, 'strip'),
    ...shade(below, frame, `${key}.below`, 'stripBelow'),
  ]
}

/** A shade with its curves; without g it reaches to the axis. */
export type Shade = Pick<Mark & { kind: 'shade' }, 'from' | 'to'> & { f: Real; g: Real | null }

function shade(mark: Shade, frame: Frame, key: string, fill: Fill): Item[] {
  const from = Math.max(mark.from, frame.x[0])
  const to = Math.min(mark.to, frame.x[1])
  if (!(from < to)) return []
  const g = mark.g ?? (() => 0)
  const steps = Math.max(8, Math.ceil((toPixelX(frame, to) - toPixelX(frame, from)) / 2))
  const point = (x: number, f: (x: number) => number) => {
    const y = toPixelY(frame, f(x))
    return Number.isFinite(y) ? `${round(toPixelX(frame, x))} ${held(frame, y)}` : null
  }
  const at = (i: number) => from + ((to - from) * i) / steps
  const there = Array.from({ length: steps + 1 }, (_, i) => point(at(i), mark.f))
  const back = Array.from({ length: steps + 1 }, (_, i) => point(at(steps - i), g))
  const all = [...there, ...back].filter((p) => p !== null)
  const whole = `M${all.join('L')}Z`
  return [{ kind: 'path', key, layer: 'insides', d: whole, ink: 'none', width: 0, fill }]
}

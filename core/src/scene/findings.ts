import type { Examination, Feature } from '../features/examination'
import { formatShort } from '../vocabulary/numbers'
import type { Ink, Item } from './items'
import { type Frame, toPixelX, toPixelY } from './frame'
import { round } from './sampleCurve'
import { textWidth } from './textWidth'

/** What is known of a curve on its span, and whether the curve has changed since. */
export interface Finding {
  examination: Examination
  stale: boolean
}

/** The height of the band at a lane's foot, in pixels. */
const bandHeight = 20

/** What a sign of a derivative says of the curve: its word for + and for −. */
function bandOf(
  name: string,
  order: number,
  { rising, falling, concaveUp, concaveDown }: Examination,
) {
  if (order === 1) return { up: rising, down: falling, words: [`${name} rises`, `${name} falls`] }
  if (order === 2) {
    return {
      up: concaveUp,
      down: concaveDown,
      words: [`${name} concave up`, `${name} concave down`],
    }
  }
  return null
}

/** The band at the foot of a derivative's lane: where it is + or −, and what that means. */
export function bandItems(
  name: string,
  order: number,
  finding: Finding,
  frame: Frame,
  type = 1,
): Item[] {
  const band = bandOf(name, order, finding.examination)
  if (!band) return []
  const top = frame.height - bandHeight
  const dimmed = finding.stale ? { dimmed: true } : {}
  const part = ([from, to]: [number, number], positive: boolean, i: number): Item[] => {
    const left = Math.max(0, toPixelX(frame, from))
    const right = Math.min(frame.width, toPixelX(frame, to))
    if (right - left < 1) return []
    const sign = positive ? '+' : '−'
    const words = `${sign} ${band.words[positive ? 0 : 1]!}`
    const room = right - left
    const text = room > textWidth(words) * type + 8 ? words : room > 14 ? sign : ''
    const key = `band.${sign}${i}`
    return [
      {
        kind: 'rect',
        layer: 'ground' as const,
        key,
        x: round(left),
        y: round(top),
        width: round(room),
        height: bandHeight,
        sign: positive ? 'positive' : 'negative',
        ...dimmed,
      },
      ...(text === ''
        ? []
        : [
            {
              kind: 'label' as const,
              layer: 'ground' as const,
              key: `${key}.words`,
              x: round((left + right) / 2),
              y: round(top + 14.5),
              text,
              ink: 'ink' as const,
              anchor: 'middle' as const,
              ...dimmed,
            },
          ]),
    ]
  }
  return [
    ...band.up.flatMap((span, i) => part(span, true, i)),
    ...band.down.flatMap((span, i) => part(span, false, i)),
  ]
}

const ring = (x: number, y: number) => `M${round(x - 4)} ${round(y)}a4 4 0 1 0 8 0a4 4 0 1 0 -8 0`

/**
 * Guides on one lane: turning points of the curve down to the zeros of its derivative, inflections
 * down to those of the second. `open` are the orders whose lanes are open, `order` is this lane's.
 */
export function guideItems(
  order: number,
  open: readonly number[],
  finding: Finding,
  frame: Frame,
  ink: Ink,
): Item[] {
  const { turningPoints, inflections } = finding.examination
  const dimmed = finding.stale ? { dimmed: true } : {}
  const seen = (x: number) => x >= frame.x[0] && x <= frame.x[1]
  const guide = (key: string, x: number, from: number, to: number): Item => ({
    kind: 'path',
    layer: 'ground' as const,
    key,
    d: `M${round(toPixelX(frame, x))} ${round(from)}V${round(to)}`,
    ink: 'quiet',
    width: 1,
    dotted: true,
    ...dimmed,
  })
  const dot = (key: string, x: number, y: number): Item => ({
    kind: 'path',
    layer: 'ground' as const,
    key,
    d: ring(toPixelX(frame, x), y),
    ink,
    width: 2,
    ...dimmed,
  })
  const zero = toPixelY(frame, 0)
  const items: Item[] = []
  turningPoints.forEach(({ x, value, vanishes }, i) => {
    if (!seen(x)) return
    const y = toPixelY(frame, value)
    if (order === 0) {
      if (open.includes(1)) items.push(guide(`turn${i}`, x, y, frame.height))
      items.push(dot(`turn${i}.ring`, x, y))
    }
    if (order === 1 && open.includes(0)) {
      // Where the derivative is missing the guide goes through, and no ring claims a zero.
      items.push(guide(`turn${i}`, x, 0, vanishes ? zero : frame.height))
      if (vanishes) items.push(dot(`turn${i}.ring`, x, zero))
    }
  })
  inflections.forEach(({ x, value, vanishes }, i) => {
    if (!seen(x) || !open.includes(2)) return
    const y = toPixelY(frame, value)
    if (order === 0) items.push(guide(`bend${i}`, x, y, frame.height), dot(`bend${i}.ring`, x, y))
    if (order === 1) items.push(guide(`bend${i}`, x, 0, frame.height))
    if (order !== 2) return
    items.push(guide(`bend${i}`, x, 0, vanishes ? zero : frame.height))
    if (vanishes) items.push(dot(`bend${i}.ring`, x, zero))
  })
  return items
}

/** What lies on the span and cannot be seen in a frame, by kind; the stretch holds all of it. */
export interface Hidden {
  kinds: { what: 'turning point' | 'zero' | 'inflection'; count: number }[]
  /** There may be more: not all of the span is settled. */
  atLeast: boolean
  from: number
  to: number
}

/** Features of a kind nearer to each other than this cannot be told apart, in pixels. */
const tellable = 2
/** An end of the frame shows what lies on it, whatever the last digit says. */
const onTheEdge = 0.5

/**
 * Features of a curve that its frame does not show: turning points, zeros and inflections outside
 * it, and neighbours of one kind that lie within 2 pixels of each other; for turning points across or
 * upwards, as a wiggle without height is as invisible as one without width. Where turning points
 * are that near, the zeros and inflections among them go without saying. With a window, only what lies
 * in that or in the frame counts. Null where all can be seen.
 */
export function hiddenFeatures(
  { examination }: Finding,
  frame: Frame,
  window: readonly [number, number] | null = null,
): Hidden | null {
  // Of a curve without a span there is always more further out: its window is what is looked for.
  const counts = ({ x }: Point) =>
    !window || (x >= Math.min(window[0], frame.x[0]) && x <= Math.max(window[1], frame.x[1]))
  const turning = unseen(examination.turningPoints.filter(counts), frame, true)
  const others = (points: readonly Point[]) => {
    const { outside, crowded } = unseen(points.filter(counts), frame, false)
    return turning.crowded.length > 0 ? outside : inOrder(outside, crowded)
  }
  const groups = [
    { what: 'turning point' as const, xs: inOrder(turning.outside, turning.crowded) },
    { what: 'zero' as const, xs: others(examination.zeros) },
    { what: 'inflection' as const, xs: others(examination.inflections) },
  ].filter(({ xs }) => xs.length > 0)
  if (groups.length === 0) return null
  return {
    kinds: groups.map(({ what, xs }) => ({ what, count: xs.length })),
    atLeast: !examination.complete,
    from: Math.min(...groups.map(({ xs }) => xs[0]!)),
    to: Math.max(...groups.map(({ xs }) => xs.at(-1)!)),
  }
}

type Point = Pick<Feature, 'x' | 'value'> & { kind?: string }

const inOrder = (a: readonly number[], b: readonly number[]) => [...a, ...b].sort((x, y) => x - y)

/** Places, in order, of points that a frame leaves out, and of those it draws into one. */
function unseen(points: readonly Point[], frame: Frame, upwards: boolean) {
  const outside: number[] = []
  const crowded: number[] = []
  const place = points.map(({ x, value }) => [toPixelX(frame, x), toPixelY(frame, value)] as const)
  const within = (at: number, size: number) => at >= -onTheEdge && at <= size + onTheEdge
  points.forEach(({ x, kind }, i) => {
    const [px, py] = place[i]!
    // Points at one height, as the crests of a wave, are no neighbours upwards: only next ones count.
    const near = [i - 1, i + 1].some((k) => {
      const other = place[k]
      if (!other) return false
      // Two low points in a row have a break between them: no wiggle joins them.
      const wiggles = upwards && points[k]!.kind !== kind
      return Math.abs(other[0] - px) < tellable || (wiggles && Math.abs(other[1] - py) < tellable)
    })
    if (!within(px, frame.width) || !within(py, frame.height)) outside.push(x)
    else if (near) crowded.push(x)
  })
  return { outside, crowded }
}

/** "2 turning points and 1 zero between t = 0 and 0.4 do not show in this frame" */
export function hiddenSentence({ kinds, atLeast, from, to }: Hidden, letter: string): string {
  const digits = Math.max(
    0,
    Math.min(9, 2 - Math.floor(Math.log10(Math.max(1e-9, to - from || 1)))),
  )
  const show = (x: number) => formatShort(x, digits)
  const counted = kinds.map(({ what, count }) => `${count} ${what}${count === 1 ? '' : 's'}`)
  const listed = (atLeast ? 'At least ' : '') + counted.join(', ').replace(/, (?=[^,]*$)/, ' and ')
  if (to > from) {
    return `${listed} between ${letter} = ${show(from)} and ${show(to)} do not show in this frame`
  }
  return kinds.length > 1
    ? `${listed} at ${letter} = ${show(from)} do not show in this frame`
    : `${listed}, at ${letter} = ${show(from)}, does not show in this frame`
}

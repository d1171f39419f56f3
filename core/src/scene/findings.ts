import type { Examination } from '../features/examine'
import { formatShort } from '../study/numbers'
import type { Ink, Item } from './items'
import { type Frame, round, toPixelX, toPixelY } from './sampleCurve'
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
export function bandItems(name: string, order: number, finding: Finding, frame: Frame): Item[] {
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
    const text = room > textWidth(words) + 8 ? words : room > 14 ? sign : ''
    const key = `band.${sign}${i}`
    return [
      {
        kind: 'rect',
        key,
        x: round(left),
        y: round(top),
        width: round(room),
        height: bandHeight,
        tint: positive ? 'positive' : 'negative',
        ...dimmed,
      },
      ...(text === ''
        ? []
        : [
            {
              kind: 'label' as const,
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
    key,
    d: `M${round(toPixelX(frame, x))} ${round(from)}V${round(to)}`,
    ink: 'quiet',
    width: 1,
    dotted: true,
    ...dimmed,
  })
  const dot = (key: string, x: number, y: number): Item => ({
    kind: 'path',
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

/** What lies on the span and cannot be seen in a frame. */
export interface Hidden {
  what: 'turning point' | 'zero'
  count: number
  from: number
  to: number
}

/** Turning points nearer to each other than this, either way, cannot be told apart, in pixels. */
const tellable = 2

/**
 * Turning points of a curve that its frame does not show: those outside it, and neighbours that lie
 * within 2 pixels of each other across or upwards; else zeros that look like one. Null where all can
 * be seen.
 */
export function hiddenFeatures({ examination }: Finding, frame: Frame): Hidden | null {
  const { turningPoints } = examination
  const place = turningPoints.map(({ x, value }) => ({
    x,
    px: toPixelX(frame, x),
    py: toPixelY(frame, value),
  }))
  const outside = place.map(
    ({ px, py }) => px < 0 || px > frame.width || py < 0 || py > frame.height,
  )
  const crowded = place.map(({ px, py }, i) =>
    [place[i - 1], place[i + 1]].some(
      (other) =>
        other && (Math.abs(other.px - px) < tellable || Math.abs(other.py - py) < tellable),
    ),
  )
  // Points at one height, as the crests of a wave, are no neighbours upwards: only next ones count.
  const hidden = place.filter((_, i) => outside[i] || crowded[i])
  if (hidden.length === 0) return hiddenZeros(examination, frame)
  return {
    what: 'turning point',
    count: hidden.length,
    from: hidden[0]!.x,
    to: hidden.at(-1)!.x,
  }
}

/** Zeros in view that look like one: they lie within 2 pixels of each other. */
function hiddenZeros({ zeros }: Examination, frame: Frame): Hidden | null {
  const seen = zeros.filter(({ x }) => x >= frame.x[0] && x <= frame.x[1])
  const close = seen.filter(({ x }, i) =>
    [seen[i - 1], seen[i + 1]].some(
      (other) => other && Math.abs(toPixelX(frame, other.x) - toPixelX(frame, x)) < tellable,
    ),
  )
  if (close.length === 0) return null
  return { what: 'zero', count: close.length, from: close[0]!.x, to: close.at(-1)!.x }
}

/** "2 turning points between t = 0 and 0.4 do not show in this frame" */
export function hiddenSentence({ what, count, from, to }: Hidden, letter: string): string {
  const digits = Math.max(
    0,
    Math.min(9, 2 - Math.floor(Math.log10(Math.max(1e-9, to - from || 1)))),
  )
  const show = (x: number) => formatShort(x, digits)
  if (count === 1) return `1 ${what}, at ${letter} = ${show(from)}, does not show in this frame`
  return `${count} ${what}s between ${letter} = ${show(from)} and ${show(to)} do not show in this frame`
}

import { compileTree } from '../evaluate/compile'
import type { Evaluation } from '../results/evaluation'
import type { Mark, Sampled } from '../statements/contract'
import type { LineLook } from '../vocabulary/members'
import type { Frame } from './frame'
import type { Item, Tint } from './items'
import { labelNames } from './labelNames'
import { tintsOf, withLook } from './looks'
import { captionSpot } from './marks/caption'
import { markItems } from './marks'
import type { Sample } from './marks/mark'
import type { Points } from './marks/points'

/** A mark with the line it comes from. */
export interface MarkOfLine {
  mark: Mark
  line: string
  /** The name by which its label is moved and hidden. */
  label: string
  dimmed: boolean
  look: LineLook | undefined
  points: Points | undefined
  tint: Tint | undefined
  /** It carries the words someone has put to its line. */
  captioned: boolean
  /** Which way its body looks: back where it has moved back last. */
  way: 1 | -1
}

/** The marks of all lines that are shown, by the curve and order they lie on. */
export function marksByCurve(
  { study, curves, lines }: Evaluation,
  ways: Ways = new Map(),
): Map<string, MarkOfLine[]> {
  const lineOf = new Map(study.lines.map((l) => [l.id, l]))
  const marksOf = new Map<string, MarkOfLine[]>()
  const tints = tintsOf(study.lines)
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
      list.push({
        mark,
        line: id,
        label,
        dimmed,
        look,
        points,
        tint: tints.get(id),
        captioned,
        way: wayOf(id, mark, ways),
      })
    })
  }
  return marksOf
}

/** Where each body was last, and which way it had moved there. */
export type Ways = Map<string, { x: number; way: 1 | -1 }>

function wayOf(line: string, mark: Mark, ways: Ways): 1 | -1 {
  if (mark.kind !== 'body' || !mark.mirrored) return 1
  const last = ways.get(line)
  const way = !last || mark.x === last.x ? (last?.way ?? 1) : mark.x < last.x ? -1 : 1
  ways.set(line, { x: mark.x, way })
  return way
}

/** The function that a mark follows; nothing where its curve cannot be drawn. */
export function sampledOf(of: Sampled, curves: Evaluation['curves']): (x: number) => number {
  if ('formula' in of) return compileTree(of.formula, { variable: of.letter }).value
  const found = curves.get(of.curve)
  if (!found?.ok) return () => NaN
  const { value } = found.curve.drawn(of.order)
  return value
}

/** What is drawn for a mark, as its line wants it. */
export function itemsOf(
  { mark, line, label, dimmed, look, points, tint, captioned, way }: MarkOfLine,
  frame: Frame,
  sample: Sample,
): Item[] {
  const key = `${line}.${mark.id}`
  const words = captioned ? look?.label : undefined
  const plain = markItems(mark, frame, key, sample, points, way)
  const items = withWords(plain, words, mark, captionSpot(mark, frame, sample), key)
  return items.flatMap((item) => {
    const shown = withLook(item, look)
    const owned =
      shown.kind === 'label' && shown.beside && (!shown.sides || shown.movable)
        ? withOwner(shown, line, label, look)
        : shown
    if (!owned) return []
    return [{ ...owned, ...(dimmed ? { dimmed: true } : {}), ...(tint ? { tint } : {}) }]
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

/** Two lines at one place put their dots on one spot: one is enough, and a chosen one comes first. */
export function firstOfEach(dots: readonly Item[]): Item[] {
  const chosen = new Map<string, Item>()
  const bodies = dots.filter(({ kind }) => kind === 'body')
  const under = new Set(bodies.map((b) => (b.kind === 'body' ? `${b.x} ${b.y}` : '')))
  for (const dot of dots) {
    if (dot.kind !== 'dot') continue
    const at = `${dot.x} ${dot.y}`
    // A body at the same point is what is taken hold of.
    if (under.has(at)) continue
    if (!chosen.has(at) || (dot.chosen && !isChosen(chosen.get(at)!))) chosen.set(at, dot)
  }
  return [...chosen.values(), ...bodies]
}
const isChosen = (item: Item) => item.kind === 'dot' && item.chosen

import { kindOf, type Statement } from '../statements'
import type { Display, LineLook } from '../vocabulary/members'
import type { Ink, Item, Tint } from './items'

export type { Tint } from './items'

/** How much larger than usual words are set in each look: chalk is read from the last row. */
export const typeOf = (look: Display['look']) => (look === 'chalk' ? 1.2 : 1)

export type LookOf = (curve: string, order: number) => LineLook | undefined

/** The colours of curves follow the order in which they were written. */
export const curveInk = (index: number): Ink => `curve${((index % 5) + 1) as 1 | 2 | 3 | 4 | 5}`

/** The ink that someone has chosen for a line, if any. */
export const inkOf = (look: LineLook | undefined): Ink | null =>
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

/** So many lines alike have colours of their own. */
const tints = 3

/**
 * The tint of each line that is drawn after others like it, such as the second and third tangent; the
 * first of them, and every third one after it, has the usual colour. Lines out of sight count too, so
 * that hiding one changes no other.
 */
export function tintsOf(lines: readonly Statement[]): ReadonlyMap<string, Tint> {
  const counts = new Map<string, number>()
  const found = new Map<string, Tint>()
  for (const line of lines) {
    const group = kindOf(line).drawn?.tinted
    if (!group) continue
    const count = counts.get(group) ?? 0
    counts.set(group, count + 1)
    if (count % tints !== 0) found.set(line.id, (count % tints) as Tint)
  }
  return found
}

/** An item as someone wants its line drawn. */
export function withLook(item: Item, look: LineLook | undefined): Item {
  if (!look || item.kind === 'rect') return item
  const ink = inkOf(look) ?? item.ink
  if (item.kind === 'body') return { ...item, ink, width: look.width ?? item.width }
  if (item.kind === 'note') return { ...item, ink, type: look.type ?? item.type }
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
 * else the colour and stroke of its curve's family, but not its words and points. Of lines that are off nothing
 * is drawn.
 */
export function looksOf(lines: readonly Statement[], off: ReadonlySet<string>): LookOf {
  const looks = new Map<string, LineLook>()
  const shown = new Map<string, boolean>()
  for (const line of lines) {
    const { drawn } = kindOf(line)
    const stands = drawn?.stands?.(line)
    if (!stands) continue
    const key = `${stands.curve}:${stands.order}`
    if (!shown.has(key)) shown.set(key, !off.has(line.id))
    // Kinds with points of their own have none along their curve.
    const own =
      drawn?.pointWidth === undefined ? line.look : line.look && { ...line.look, marker: undefined }
    const look = off.has(line.id) ? { ...own, hidden: true } : own
    if (look && !looks.has(key)) looks.set(key, look)
  }
  const made = new Map<string, LineLook | undefined>()
  return (curve, order) => {
    const own = looks.get(`${curve}:${order}`)
    if (order === 0) return own
    const key = `${curve}:${order}`
    const family = looks.get(`${curve}:0`)
    if (!made.has(key)) {
      const { hidden: _, label: __, marker: ___, ...shared } = family ?? {}
      // A derivative that no line stands for comes and goes with its curve.
      const gone = !shown.has(key) && shown.get(`${curve}:0`) === false ? { hidden: true } : {}
      made.set(key, family || own ? { ...shared, ...own, ...gone } : undefined)
    }
    return made.get(key)
  }
}

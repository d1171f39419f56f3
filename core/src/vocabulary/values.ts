import { compile } from '../algebra/compile'
import { namesIn, type Tree } from '../formula/tree'
import type { RealFunction } from '../evaluate/compile'
import { parseFormula } from '../calculus/parseFormula'
import type { Problem } from '../language/problems'
import type { Slider, SpanText } from './members'

/** Splits a typed span such as "0 ≤ t ≤ 10", "[0, 10]", "0 to 10" into its ends; null if it is none. */
export function parseSpan(text: string): { from: string; to: string } | null {
  const trimmed = text.trim()
  const chain = /^(.+?)\s*(?:≤|<=|<)\s*\p{L}\S*\s*(?:≤|<=|<)\s*(.+)$/u.exec(trimmed)
  const bracket = /^[[(]\s*(.+?)\s*[,;]\s*(.+?)\s*[\])]$/.exec(trimmed)
  const words =
    /^(?:from\s+)?(.+?)\s*(?:\bto\b|…|\.\.\.?)\s*(.+)$/.exec(trimmed) ??
    /^between\s+(.+?)\s+and\s+(.+)$/.exec(trimmed)
  const pair = /^([^,;]+)[,;]([^,;]+)$/.exec(trimmed)
  const found = chain ?? bracket ?? words ?? pair
  return found ? { from: found[1]!.trim(), to: found[2]!.trim() } : null
}

/** How a span stands behind a function: [what comes before, the span]. */
const spanTails: readonly RegExp[] = [
  /^(.*?\S)(?:\s*[,;]\s*|\s+)(?:(?:for|on|over|where|with)\s+)?(\p{L}\s*(?:∈\s*|in\s+)[[(].*[\])])$/su,
  /^(.*\S)\s+(?:for|on|over|in)\s+(\S.*)$/s,
  // Behind a comma only what is a span by its shape.
  /^(.*\S)\s*[,;]\s*(?:where\s+|with\s+)?([^,;]+(?:≤|<=|<)\s*\p{L}\s*(?:≤|<=|<)[^,;]+)$/su,
  /^(.*\S)\s*[,;]\s*((?:\p{L}\s*(?:∈|\bin\b)\s*)?[[(][^()[\]]+[,;][^()[\]]+[\])])$/su,
  /^(.*\S)\s+(?:where|with)\s+(\S.*(?:≤|<=|<)\s*\p{L}\s*(?:≤|<=|<).*)$/su,
  /^(.*\S)\s+(from\s+\S.*\s+to\s+\S.*)$/s,
  /^(.*\S)\s+(between\s+\S.*\s+and\s+\S.*)$/s,
]

/** Cuts a span off the end of a typed function: "sin t for 0 ≤ t ≤ 10", "sin t on [0, 10]". */
export function cutSpan(text: string): {
  formula: string
  span: { from: string; to: string } | null
} {
  for (const pattern of spanTails) {
    const match = pattern.exec(text)
    const tail = match?.[2]!.replace(/^\p{L}\s*(?:∈|\bin\b|\\in\b)\s*/u, '')
    const span = tail === undefined ? null : parseSpan(tail)
    if (span) return { formula: match![1]!.replace(/,$/, ''), span }
  }
  return { formula: text, span: null }
}

type Meaning = { ok: true; tree: Tree; f: RealFunction } | { ok: false; problem: Problem }
/** Places are read at every frame of a drag: what a text means with these names is kept. */
const meanings = new Map<string, Meaning>()
const mostMeanings = 500

const powerOfTen = /^(\s*[-+−]?(?:\d+\.?\d*|\.\d+))e([-+−]?\d+\s*)$/
/** A number alone, such as 1e-8, with E: there nobody means e = 2.718…, and no slider is called e. */
export const withPowerOfTen = (text: string) =>
  text.replace(powerOfTen, '$1E$2').replace('E−', 'E-')

function meaningOf(typed: string, names: readonly string[]): Meaning {
  const text = withPowerOfTen(typed)
  const key = `${names.join()}\u0000${text}`
  const known = meanings.get(key)
  if (known) return known
  const parsed = parseFormula(text, { variable: '', names })
  const meaning: Meaning = parsed.ok
    ? { ok: true, tree: parsed.tree, f: compile(parsed.tree, { variable: '' }) }
    : { ok: false, problem: parsed.problems[0]! }
  if (meanings.size >= mostMeanings) meanings.clear()
  meanings.set(key, meaning)
  return meaning
}

/** The number a formula without the variable stands for, or what is wrong with it. */
export function readNumber(
  text: string,
  sliders: readonly Pick<Slider, 'name' | 'value'>[] = [],
): { ok: true; value: number; tree: Tree } | { ok: false; message: string; missing?: string } {
  const names = sliders.map((s) => s.name)
  const meaning = meaningOf(text, names)
  if (!meaning.ok) {
    const { message, missing } = meaning.problem
    return { ok: false, message, ...(missing ? { missing } : {}) }
  }
  const values = Object.fromEntries(sliders.map((s) => [s.name, s.value]))
  const value = meaning.f.withParameters(values).value(0)
  if (!Number.isFinite(value)) return { ok: false, message: `${text} has no value` }
  return { ok: true, value, tree: meaning.tree }
}

/** The sliders a place can be moved by: itself, or the free one in a + h. */
export function freeSlider(tree: Tree, sliders: readonly Slider[]): Slider | null {
  const inside = sliders.filter((s) => namesIn(tree).has(s.name))
  if (inside.length === 1) return inside[0]!
  const free = inside.filter((s) => !s.place)
  return free.length === 1 ? free[0]! : null
}

/** Where a value lies on a slider's way, from 0 to 1. */
export function shareOfSlider({ from, to, scale }: Slider, value: number): number {
  if (scale === 'growing' && from > 0) return Math.log(value / from) / Math.log(to / from)
  return (value - from) / (to - from)
}

/** The value at a share of a slider's way, before it is brought to a step. */
export function sliderValueAt({ from, to, scale }: Slider, share: number): number {
  if (scale === 'growing' && from > 0) return from * (to / from) ** share
  return from + share * (to - from)
}

/** The nearest value a slider can take: on its grid of steps, or at one of its ends. */
export function snapToStep({ from, to, step }: Slider, value: number): number {
  if (value <= from) return from
  if (value >= to) return to
  const snapped = from + Math.round((value - from) / step) * step
  // 0.1 + 0.2 must read 0.3: the sum is taken back to the digits of a step.
  const digits = Math.min(15, Math.max(0, Math.ceil(-Math.log10(step)) + 3))
  return Math.min(to, Number(snapped.toFixed(digits)))
}

/** A constraint at the end of words: "for x ≥ 0" gives one end, "0 <= x <= 5" both. */
export function boundIn(words: string): { span: Partial<SpanText>; rest: string } | null {
  const found =
    /(?:^|\s)(?:(?:for|where|with|on)\s+)?(?:([^\s<≤]+)\s*[<≤]=?\s*)?\p{L}\s*([<≤>≥])=?\s*([^\s<≤>≥]+)$/u.exec(
      words.trimEnd(),
    )
  if (!found) return null
  const [, low, relation, bound] = found
  const isUpper = relation === '<' || relation === '≤'
  // "0 < x > 5" is no span.
  if (low !== undefined && !isUpper) return null
  const span = isUpper
    ? { ...(low === undefined ? {} : { from: low }), to: bound! }
    : { from: bound! }
  return { span, rest: words.slice(0, found.index).trim() }
}

import { compile } from '../compile'
import { namesIn, type Tree } from '../language/tree'
import { parseFormula } from '../language/parse'
import type { Slider } from './parts'

/** Splits a typed span such as "0 ≤ t ≤ 10", "[0, 10]", "0 to 10" into its ends; null if it is none. */
export function parseSpan(text: string): { from: string; to: string } | null {
  const trimmed = text.trim()
  const chain = /^(.+?)\s*(?:≤|<=|<)\s*\p{L}\S*\s*(?:≤|<=|<)\s*(.+)$/u.exec(trimmed)
  const bracket = /^[[(]\s*(.+?)\s*[,;]\s*(.+?)\s*[\])]$/.exec(trimmed)
  const words = /^(?:from\s+)?(.+?)\s*(?:\bto\b|…|\.\.\.?)\s*(.+)$/.exec(trimmed)
  const pair = /^([^,;]+)[,;]([^,;]+)$/.exec(trimmed)
  const found = chain ?? bracket ?? words ?? pair
  return found ? { from: found[1]!.trim(), to: found[2]!.trim() } : null
}

/** The number a formula without the variable stands for, or what is wrong with it. */
export function readNumber(
  text: string,
  sliders: readonly Pick<Slider, 'name' | 'value'>[] = [],
): { ok: true; value: number; tree: Tree } | { ok: false; message: string; missing?: string } {
  const parsed = parseFormula(text, { variable: '', names: sliders.map((s) => s.name) })
  if (!parsed.ok) {
    const { message, missing } = parsed.problems[0]!
    return { ok: false, message, ...(missing ? { missing } : {}) }
  }
  const values = Object.fromEntries(sliders.map((s) => [s.name, s.value]))
  const value = compile(parsed.tree, { variable: '', parameters: values }).value(0)
  if (!Number.isFinite(value)) return { ok: false, message: `${text} has no value` }
  return { ok: true, value, tree: parsed.tree }
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

import { derivativeToLatex, nameToLatex, toLatex } from '../language/latex'
import { toPlain } from '../language/print'
import type { Phrase, SentenceContext } from './kind'

/** The curve a slot names: q, or q′ for its derivative. */
export interface CurveRef {
  curve: string
  order: number
}

export const curveText = ({ curve, order }: CurveRef) => curve + '′'.repeat(order)

/** Reads q, q', q′′ and so on; null for anything else. */
export function parseCurveRef(text: string): CurveRef | null {
  const match = /^\s*(\p{L}(?:[₀-₉]{1,3}|_[A-Za-z])?)\s*(['′’"″‴]*)\s*$/u.exec(text)
  if (!match) return null
  const worth: Record<string, number> = { '"': 2, '″': 2, '‴': 3 }
  const order = [...match[2]!].reduce((total, mark) => total + (worth[mark] ?? 1), 0)
  return { curve: match[1]!, order }
}

export const curveSlot = (ref: CurveRef, context: SentenceContext): Phrase => ({
  slot: 'curve',
  field: 'curve',
  text: curveText(ref),
  source: curveText(ref),
  latex: derivativeToLatex(ref.curve, ref.order, context.variable.letter, context.notation),
})

/** "t = a" */
export function placeSlot(place: string, context: SentenceContext): Phrase {
  const tree = context.read(place)
  const { letter } = context.variable
  return {
    slot: 'place',
    field: 'place',
    text: `${letter} = ${tree ? toPlain(tree) : place}`,
    source: place,
    latex: `${nameToLatex(letter)} = ${tree ? toLatex(tree) : `\\text{${escapeText(place)}}`}`,
  }
}

/** Makes any typed text safe inside \text{…}. */
export const escapeText = (text: string) =>
  text.replace(/[\\{}$&#%_^~]/g, (c) =>
    c === '\\' ? '\\textbackslash ' : c === '^' ? '\\hat{}' : c === '~' ? '\\sim ' : `\\${c}`,
  )

export const sentenceText = (phrases: readonly Phrase[]) => phrases.map((p) => p.text).join('')

/** The words of a request without the one that chooses the kind, or null where it is not asked. */
export function wordsAfter(text: string, ...starts: string[]): string | null {
  const lower = text.toLowerCase()
  if (lower === '') return ''
  for (const start of starts) {
    // While the word is still being typed any beginning of it asks for the kind.
    if (start.startsWith(lower)) return ''
    if (lower.startsWith(`${start} `)) return text.slice(start.length).trim()
  }
  return null
}

/** What was said about a curve and a place in "to q′ at t = 2", "q at 2", "at a" or "2". */
export function curveAndPlace(
  rest: string,
  letter: string,
  curves: readonly { name: string }[],
): { ref: CurveRef | null; place: string | null } {
  const [, subject = '', at = ''] = /^(?:to |of )?(.*?)(?:\s*\bat\b\s*(.*))?$/.exec(rest) ?? []
  const ref = parseCurveRef(subject)
  const known = ref && curves.some((c) => c.name === ref.curve)
  const place = (at || (known ? '' : subject)).replace(new RegExp(`^${letter}\\s*=\\s*`), '').trim()
  return { ref: known ? ref : null, place: place || null }
}

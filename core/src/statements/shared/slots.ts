import { derivativeToLatex, nameToLatex, toLatex } from '../../language/latex'
import { countPrimes } from '../../language/primes'
import { toPlain } from '../../language/print'
import { nameSchema, type SpanText } from '../../vocabulary/members'
import { boundIn, parseSpan } from '../../vocabulary/values'
import type { NewSlider, Phrase, Request, SentenceContext } from '../contract'

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
  return { curve: match[1]!, order: countPrimes(match[2]!) }
}

export const curveSlot = (ref: CurveRef, context: SentenceContext): Phrase => ({
  slot: 'curve',
  field: 'curve',
  text: curveText(ref),
  source: curveText(ref),
  latex: derivativeToLatex(ref.curve, ref.order, context.variable.letter, context.notation),
})

/** A place as it stands in a sentence, without "t =". */
export function placeText(place: string, context: SentenceContext) {
  const tree = context.read(place)
  return {
    text: tree ? toPlain(tree) : place,
    source: place,
    latex: tree ? toLatex(tree) : `\\text{${escapeText(place)}}`,
  }
}

/** A number, or an expression for one, by the member that holds it. */
export const numberSlot = (field: string, text: string, context: SentenceContext): Phrase => ({
  slot: 'number',
  field,
  ...placeText(text, context),
})

/** "[1, 4]" */
export function spanSlot(span: SpanText, context: SentenceContext): Phrase {
  const [from, to] = [placeText(span.from, context), placeText(span.to, context)]
  return {
    slot: 'span',
    field: 'span',
    text: `[${from.text}, ${to.text}]`,
    source: `${span.from} to ${span.to}`,
    latex: `[${from.latex}, ${to.latex}]`,
  }
}

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

/** The span that words name, such as "over [1, 4]" or "on 1 to 4"; null where they name none. */
export function spanIn(words: string): { span: Partial<SpanText> | null; rest: string } {
  const bound = boundIn(words)
  if (bound) return bound
  const named = /(?:^|\s)(?:over|on|from)\s+(\S.*)$/.exec(words)
  const span = named && parseSpan(named[1]!)
  if (span) return { span, rest: words.slice(0, named.index).trim() }
  const bare = /^(\S+)\s+to\s+(\S+)$/.exec(words.trim())
  return bare ? { span: { from: bare[1]!, to: bare[2]! }, rest: '' } : { span: null, rest: words }
}

/** "from 0" and "from 0 to t" ask for the area as a function, not over a span. */
export function endsOpen(words: string, letter: string): boolean {
  const to = /\bfrom\s+\S+(?:\s+to\s+(\S+))?\s*$/.exec(words)
  return to !== null && (to[1] === undefined || to[1] === letter)
}

/** The span a line is offered with: the one that was said, that is selected, or that of the curve. */
export const likelySpan = (
  said: Partial<SpanText> | null,
  request: Request,
  curve: string,
): SpanText => {
  const own = request.curves.find((c) => c.name === curve) ?? { from: '0', to: '1' }
  if (said) return { from: said.from ?? own.from, to: said.to ?? own.to }
  return request.span ?? { from: own.from, to: own.to }
}

/** The curve that words name at their beginning, with what follows it; any curve where none. */
export function curvesMeant(words: string, request: Request): { refs: CurveRef[]; rest: string } {
  const { curves, ref } = request
  const [first = '', ...others] = words.replace(/^(?:of|to|under|for)\s+/, '').split(/\s+/)
  const named = parseCurveRef(first)
  if (named && curves.some((c) => c.name === named.curve)) {
    return { refs: [named], rest: others.join(' ') }
  }
  // One letter alone that no curve has is meant as a curve all the same.
  if (named && others.length === 0) return { refs: [], rest: '' }
  if (namesNoCurve(words, request)) return { refs: [], rest: '' }
  const refs = ref ? [ref] : curves.map((c) => ({ curve: c.name, order: 0 }))
  return { refs, rest: words }
}

/** Letters that no new curve can have: what is built on a slider k would mean a curve k without a word. */
export const takenNames = ({
  curves,
  surfaces,
  sliders,
  otherSliders,
  variable,
}: Request): Set<string> =>
  new Set([
    ...[...curves, ...surfaces].map(({ name }) => name),
    ...sliders,
    ...otherSliders,
    variable.letter,
  ])

/** Whether words begin with the name of a curve that is not there: of g, to g at 2, g′ at 2. */
export function namesNoCurve(words: string, request: Request): boolean {
  const [, first = ''] = /^(?:of|to|under|for)\s+(\S+)/.exec(words) ?? []
  const ref = parseCurveRef(first.replace(/\(.*\)$/, ''))
  if (!ref) return false
  const { curves, sliders, otherSliders, variable } = request
  const others = [...sliders, ...otherSliders, variable.letter, 'e', 'π']
  return !curves.some((c) => c.name === ref.curve) && !others.includes(ref.curve)
}

/** A place that was said, with the slider it needs where it is a letter that nothing has yet. */
export function placeSaid(said: string, request: Request): { place: string; sliders: NewSlider[] } {
  const isNew =
    nameSchema.safeParse(said).success &&
    !request.sliders.includes(said) &&
    !takenNames(request).has(said)
  return { place: said, sliders: isNew ? [{ name: said, place: true }] : [] }
}

/** A place that is there, or the slider a that is to be made. */
export function likelyPlace(request: Request): { place: string; sliders: NewSlider[] } {
  const place = request.place ?? request.sliders[0]
  return place === undefined
    ? { place: 'a', sliders: [{ name: 'a', place: true }] }
    : { place, sliders: [] }
}

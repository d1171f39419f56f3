import { readFormula } from '../algebra/readFormula'
import { allKinds, kindOf } from '../statements'
import { spansOf, textsOf } from '../statements/shared/uses'
import { readingOf } from '../study/edits/names'
import type { Study } from '../study/schema'
import { withPowerOfTen } from '../vocabulary/values'
import { everydayPhrases, withoutLeadIn } from './everydayWords'
import type { Offer } from './offer'
import { offersFor, plainWords } from './offers'

/** Words that only join others, or say what someone wants done: they ask for nothing themselves. */
const joining = new Set([
  ...['a', 'an', 'the', 'of', 'at', 'to', 'in', 'on', 'over', 'from', 'until', 'for', 'by', 'with'],
  ...['and', 'as', 'is', 'are', 'be', 'does', 'do', 'did', 'has', 'have', 'it', 'its', 'there'],
  ...['between', 'along', 'under', 'below', 'within', 'where', 'when', 'what', 'which', 'how'],
  ...['many', 'much', 'find', 'show', 'draw', 'plot', 'add', 'give', 'me', 'please', 'compute'],
  ...['calculate', 'determine', 'put', 'make', 'let', 'use', 'using', 'all', 'any', 'curve'],
  ...['line', 'graph', 'function', 'point', 'points', 'place', 'places', 'value', 'values'],
  ...['interval', 'span', 'number', 'equal', 'equals', 'that', 'this', 'through', 'whole'],
  ...['apply', 'applies', 'hold', 'holds', 'check', 'can', 'calculus', 'theorem', 'test'],
])

/** Longer texts are formulas or pasted by mistake; each word costs another look at all offers. */
const mostWords = 60

const wordsIn = (text: string) => [...text.matchAll(/[^\s,;]+/g)]
const bare = (word: string) => word.toLowerCase().replace(/^[^\p{L}\d.]+|[^\p{L}\d]+$/gu, '')

/** What an offer would make of the study, to tell offers apart. */
const outcome = (offer: Offer | undefined, study: Study) => {
  if (!offer) return ''
  const { lines, sliders, lanes } = offer.edit(study)
  return JSON.stringify([lines, sliders, lanes])
}
/** A slider alone is read whole or not at all: no word of its request is left over. */
const addsLine = (offer: Offer, study: Study) => offer.edit(study).lines.length > study.lines.length
const kindOfOffer = (offer: Offer | undefined, study: Study) =>
  offer && offer.edit(study).lines.at(-1)?.kind

/** Numbers and letters that stand in the added line and in the sliders that come with it. */
function saidBy(offer: Offer, study: Study): Map<string, number> {
  const next = offer.edit(study)
  const { id: _, kind: __, ...line } = next.lines.at(-1)!
  const added = next.sliders.slice(study.sliders.length).map(({ name, value }) => [name, value])
  const told = `${JSON.stringify([line, added])} ${offer.sentence}`
  const counts = new Map<string, number>()
  for (const [part] of told.matchAll(/\d+(?:\.\d+)?|\p{L}+/gu)) {
    const key = part.toLowerCase()
    counts.set(key, (counts.get(key) ?? 0) + 1)
  }
  return counts
}

/**
 * The words of a request that its first offer does not answer to: left out they change nothing, they
 * ask for another kind of line, and they stand nowhere in what would be added. Words that join
 * others are no matter. Empty where nothing is offered, and for very long texts.
 */
export function unreadWords(typed: string, study: Study, place: string | null = null): string[] {
  const text = plainWords(typed, study)
  const words = wordsIn(text)
  const [first] = offersFor(text, study, place)
  if (!first || !addsLine(first, study) || words.length > mostWords) return []
  const strange = unreadableParts(first, study)
  if (strange.length > 0) return strange
  const whole = outcome(first, study)
  const kind = kindOfOffer(first, study)
  const said = saidBy(first, study)
  const known = wordsOfKind(kind!, text, study)
  return words.flatMap(({ 0: word, index }) => {
    const plain = bare(word)
    if (plain === '' || plain === study.variable.letter) return []
    if (joining.has(plain) || known.has(plain)) return []
    const without = `${text.slice(0, index)} ${text.slice(index + word.length)}`
    if (outcome(offersFor(without, study, place)[0], study) !== whole) return []
    const parts = (plain.match(/\d+(?:\.\d+)?|\p{L}+/gu) ?? []).filter(
      (part) => part !== study.variable.letter,
    )
    const stands = parts.every((part) => (said.get(part) ?? 0) > 0)
    for (const part of parts) said.set(part, (said.get(part) ?? 0) - 1)
    return stands ? [] : [word]
  })
}

/**
 * What stands behind the readable beginning of a place, a span or a number: “2 in the lagoon” begins
 * with a place. A letter without a value is readable: its line offers to give it one.
 */
function unreadableParts(offer: Offer, study: Study): string[] {
  const next = offer.edit(study)
  const line = next.lines.at(-1)!
  const { places = [], numbers = [], spans = [] } = kindOf(line).uses
  const texts = [
    ...textsOf(line, [...places, ...numbers]).map(({ text }) => text),
    ...spansOf(line, spans).flatMap(({ from, to }) => [from, to]),
  ]
  const reads = (text: string) => {
    const parsed = readFormula(text, readingOf(next))
    return parsed.ok || parsed.problems.every((p) => p.missing !== undefined)
  }
  return texts.flatMap((text) => {
    if (text.trim() === '' || reads(withPowerOfTen(text))) return []
    if (kindOf(line).reachesEnds && /^[-−+]?∞$/.test(text.trim())) return []
    const words = text.trim().split(/\s+/)
    let readable = words.length - 1
    while (readable > 0 && !reads(words.slice(0, readable).join(' '))) readable -= 1
    return words.slice(readable).filter((word) => !joining.has(bare(word)))
  })
}

/** The words of all phrases in a text that ask for one kind of line. */
function wordsOfKind(kind: string, text: string, study: Study): Set<string> {
  const plain = ` ${wordsIn(text)
    .map(([word]) => bare(word))
    .join(' ')} `
  const leadless = withoutLeadIn(text).toLowerCase()
  const phrases = [...allKinds.flatMap((k) => k.said), ...everydayPhrases]
  const present = phrases.filter((phrase) => plain.includes(` ${phrase.toLowerCase()} `))
  // The words at the very beginning are what was answered; others may ask for something else.
  const beginning = present
    .filter((phrase) => leadless.startsWith(phrase.toLowerCase()))
    .sort((a, b) => b.length - a.length)[0]
  const asking = present.filter(
    (phrase) =>
      phrase === beginning || kindOfOffer(offersFor(phrase, study, null)[0], study) === kind,
  )
  return new Set(asking.flatMap((phrase) => phrase.toLowerCase().split(' ')))
}

/**
 * The offers that a request could mean as well as the first one: the same line about another curve
 * where no curve was named, or another kind that the same words ask for.
 */
export function equalReadings(typed: string, study: Study, place: string | null = null): Offer[] {
  const text = plainWords(typed, study)
  const [first, ...others] = offersFor(text, study, place)
  if (!first || !addsLine(first, study)) return []
  const lineOf = (offer: Offer) => {
    const { id: _, ...line } = offer.edit(study).lines.at(-1)!
    return line as Record<string, unknown>
  }
  const own = lineOf(first)
  const named = typeof own.curve === 'string' && namesCurve(text, own.curve)
  const start = bareText(text)
  const asks = (kind: unknown) =>
    Math.max(
      0,
      ...allKinds
        .filter((k) => k.kind === kind)
        .flatMap((k) => k.said)
        .filter((phrase) => start === phrase || start.startsWith(`${phrase} `))
        .map((phrase) => phrase.length),
    )
  return others.filter((offer) => {
    const line = lineOf(offer)
    if (line.kind !== own.kind) {
      const length = asks(own.kind)
      return length > 0 && asks(line.kind) === length
    }
    const { curve: _, ...rest } = line
    const { curve: __, ...ownRest } = own
    return line.curve !== own.curve && !named && JSON.stringify(rest) === JSON.stringify(ownRest)
  })
}

const bareText = (text: string) =>
  wordsIn(text)
    .map(([word]) => bare(word))
    .join(' ')
const namesCurve = (text: string, curve: string) =>
  new RegExp(`(?<![\\p{L}])${curve}(?![\\p{L}])`, 'u').test(text)

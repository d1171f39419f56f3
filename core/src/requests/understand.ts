import { readFormula } from '../calculus/readFormula'
import { namesIn } from '../formula/tree'
import { allKinds, isCurveMaker } from '../statements'
import { curveMakers, freshName, readingOf } from '../study/edits/names'
import type { Study } from '../study/schema'
import type { SpanText } from '../vocabulary/members'
import { asDefined } from './definitions'
import { joining, tokensOf } from './joining'
import { definedName, withoutLeadIn } from './leadIn'
import type { Offer } from './offer'
import { directOffers, linesFor } from './offers'
import { completed } from './reader/completed'
import { askedPhrases } from './reader/asks'
import { type Reading, readRequest } from './reader/read'
import { readerContext } from './readerContext'
import { firstUnderstood } from './several'
import { isKnownWord, withoutSlips } from './slips'
import { isCurveFirst, sliderAsked } from './sliders'
import { unreadableParts } from './unreadable'

/** What was made of a request. */
export interface Understood {
  /** The lines and sliders it could mean, likeliest first. */
  offers: readonly Offer[]
  /** So many of the first are as likely as each other; nothing is added until one is chosen. */
  equal: number
  /** Words that nothing answers to, as they were typed; nothing is added while there are any. */
  unread: readonly string[]
  /** The last word is the beginning of one that is understood, and the offers are for that. */
  begun: boolean
  /** The request as it was probably meant, where words that are not understood have slips. */
  meant: string | null
  /** Why the nearest thing is offered in place of what was asked for. */
  why: string | null
}

const mostOffers = 8
const together = (...lists: (readonly Offer[])[]): Offer[] => {
  const seen = new Set<string>()
  return lists
    .flat()
    .filter(({ sentence }) => !seen.has(sentence) && seen.add(sentence))
    .slice(0, mostOffers)
}
const plain = { equal: 1, unread: [], begun: false, meant: null, why: null } as const

/**
 * Makes lines of a request: sliders and curves that are defined first, then what the words ask for,
 * as far as they are understood, with the words that are not. Nothing that was said is dropped.
 */
export function understand(
  typed: string,
  study: Study,
  place: string | null = null,
  span: SpanText | null = null,
): Understood {
  const text = withoutLeadIn(asDefined(typed))
  const direct = directOffers(typed, study, place, span)
  const slider = sliderAsked(text, study)
  if (slider && 'offer' in slider) {
    const curves = direct.filter((offer) => makesCurve(offer, study))
    const offers = isCurveFirst(text) ? [...curves, slider.offer] : [slider.offer, ...curves]
    return { ...plain, offers }
  }
  if (slider) return { ...plain, offers: [] }
  const own = (reading: Reading | null) =>
    reading ? linesFor(reading.own, study, place, span) : []
  const whole = saysWhatIs.test(text) ? direct.filter((offer) => makesCurve(offer, study)) : []
  if (text === '') return { ...plain, offers: direct }
  if (definedName(text, study.variable.letter, curveMakers(study)) !== null) {
    const [first] = whole
    return { ...plain, offers: whole, unread: first ? unreadableParts(first, study) : [] }
  }
  // What is to be defined anew stands in a line already.
  if (/^(?:let|given)\b/i.test(text)) return { ...plain, offers: whole }
  if (beginsAsOneKind(text) && direct.length > 0) {
    return { ...plain, offers: direct, unread: unreadableParts(direct[0]!, study) }
  }
  const context = readerContext(study)
  const read = readRequest(text === typed.trim() ? typed : asDefined(typed), context)
  const offers = own(read)
  const unread =
    read && offers.length > 0 ? [...read.unread, ...restOf(offers[0]!, read, study)] : []
  const beginnings = isBeginning(text) ? direct : []
  if (read && offers.length > 0 && unread.length === 0) {
    const { equal, why } = read
    return {
      ...plain,
      offers: together(offers, beginnings, whole),
      equal: Math.min(equal, offers.length),
      why: why ?? null,
    }
  }
  if (beginnings.length > 0) return { ...plain, offers: beginnings }
  if (whole.length > 0)
    return { ...plain, offers: whole, unread: unreadableParts(whole[0]!, study) }
  const formula = asFormula(text, study, place, span)
  if (formula.length > 0) return { ...plain, offers: formula }
  const begun = together(
    ...completed(text, (words) => {
      const reading = readRequest(words, context)
      return reading && reading.unread.length === 0 ? own(reading) : []
    }),
  )
  if (begun.length > 0) return { ...plain, offers: begun, begun: true, unread: [lastWord(text)] }
  const mended = withoutSlips(typed)
  if (mended) {
    const anew = understand(mended.text, study, place, span)
    if (anew.offers.length > 0 && anew.unread.length === 0) {
      return { ...anew, unread: mended.words, meant: mended.text }
    }
  }
  if (!read || offers.length === 0)
    return { ...plain, offers: [], unread: unknownWords(text, study) }
  return { ...plain, offers, equal: read.equal, unread, why: read.why ?? null }
}

/** "let …", "given …", "this graph is f″ of h": sentences about a curve that is not there yet. */
const saysWhatIs = /^(?:let|given)\b|=|\b(?:is|be)\s+(?:the\s+graph\s+of\s+)?\p{L}\s*['’′″]/u

/** Whether a request can be added as it is, with nothing to ask about. */
export const isPlainly = ({ offers, equal, unread, why }: Understood) =>
  offers.length > 0 && equal === 1 && unread.length === 0 && why === null

/**
 * The same for a text that may hold several requests: where it is not understood as one, what its
 * beginning says, and the rest that is left to say.
 */
export function understandFirst(
  typed: string,
  study: Study,
  place: string | null = null,
  span: SpanText | null = null,
): { understood: Understood; rest: string } {
  const understood = understand(typed, study, place, span)
  if (isPlainly(understood) || understood.begun || understood.meant !== null) {
    return { understood, rest: '' }
  }
  const first = firstUnderstood(typed, (request) =>
    isPlainly(understand(request, study, place, span)),
  )
  return first
    ? { understood: understand(first.request, study, place, span), rest: first.rest }
    : { understood, rest: '' }
}

const makesCurve = (offer: Offer, study: Study) => {
  const { lines } = offer.edit(study)
  return lines.length > study.lines.length && isCurveMaker(lines.at(-1)!)
}
const restOf = (offer: Offer, read: Reading, study: Study) =>
  read.unread.length > 0 ? [] : unreadableParts(offer, study)

const lastWord = (text: string) => text.split(/\s+/).at(-1)!

/** Whether a text begins with words of a kind that the reader has none for: the kind reads it then. */
function beginsAsOneKind(text: string): boolean {
  const lower = `${text.toLowerCase()} `
  return allKinds.some(({ said }) =>
    said.some((phrase) => lower.startsWith(`${phrase} `) && !isKnown(phrase)),
  )
}
const isKnown = (phrase: string) =>
  askedPhrases.some((asked) => phrase === asked || phrase.startsWith(`${asked} `))

/** The words of a request that stand in none that is known. */
function unknownWords(text: string, study: Study): string[] {
  const names = [...curveMakers(study), ...study.sliders].map(({ name }) => name)
  return tokensOf(text).flatMap(({ word, plain }) => {
    const isNumber = /^[\d.,−-]+$/.test(plain)
    const isName = names.some(
      (name) => word.replace(/['’′″()\p{L}]*$/u, '') === '' && word.startsWith(name),
    )
    return isNumber || isName || joining.has(plain) || isKnownWord(plain) ? [] : [word]
  })
}

/** Whether a text is the beginning of what a line is asked for by. */
function isBeginning(text: string): boolean {
  const lower = text.toLowerCase()
  return allKinds.some(({ said }) => said.some((phrase) => phrase.startsWith(lower)))
}

/** A formula by itself is a curve without a letter yet. */
function asFormula(
  text: string,
  study: Study,
  place: string | null,
  span: SpanText | null,
): readonly Offer[] {
  const { letter } = study.variable
  const names = curveMakers(study).map((curve) => curve.name)
  const called = text.replace(
    /(?<!\p{L})(\p{L}[₀-₉]*)(['’′″]*)(?![\p{L}'’′″(])/gu,
    (whole, name: string) => (names.includes(name) ? `${whole}(${letter})` : whole),
  )
  const parsed = readFormula(called, readingOf(study))
  if (!parsed.ok || namesIn(parsed.tree).size === 0) return []
  const name =
    ['g', 'h', 'r', 'p'].find((one) => freshName(study, one) === one) ?? freshName(study, 'g')
  return linesFor([`let ${name}(${letter}) = ${called}`], study, place, span)
}

/** The lines that could be meant by what was typed, likeliest first. */
export const offersFor = (
  text: string,
  study: Study,
  place: string | null,
  span: SpanText | null = null,
): readonly Offer[] => understand(text, study, place, span).offers

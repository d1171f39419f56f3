import { readFormula } from '../calculus/readFormula'
import { namesIn } from '../formula/tree'
import { allKinds, isCurveMaker } from '../statements'
import { curveMakers, readingOf } from '../study/edits/names'
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
import { captionSaid, withCaption } from './caption'
import { partAsked } from './parts'
import { isCurveFirst, sliderAsked } from './sliders'
import { asSurface } from './surfaces'
import { titleAsked } from './title'
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

/** A request while it is being understood; what it could mean as it stands is looked up once. */
interface Said {
  typed: string
  text: string
  study: Study
  place: string | null
  span: SpanText | null
  make(words: readonly string[]): Offer[]
  direct(): readonly Offer[]
}

/**
 * Makes lines of a request: sliders and curves that are defined first, then what the words ask for,
 * as far as they are understood, with the words that are not. Nothing that was said is dropped.
 */
export function understand(
  asTyped: string,
  study: Study,
  place: string | null = null,
  span: SpanText | null = null,
): Understood {
  // One space says as much as many, and patterns run through it once.
  const typed = asSurface(asTyped.replace(/\s+/g, ' '), study)
  const captioned = captionSaid(withoutLeadIn(typed))
  if (captioned) {
    const plainly = understand(captioned.rest, study, place, span)
    return { ...plainly, offers: plainly.offers.map((o) => withCaption(o, captioned.caption)) }
  }
  let direct: readonly Offer[] | undefined
  const said: Said = {
    typed,
    text: withoutLeadIn(asDefined(typed)),
    study,
    place,
    span,
    make: (words) => linesFor(words, study, place, span),
    direct: () => (direct ??= directOffers(typed, study, place, span)),
  }
  if (said.text === '') return { ...plain, offers: said.direct() }
  return asDefinition(said) ?? asRequest(said)
}

/** What kinds are asked for by whose words are not looked at further. */
const ownWords = allKinds.flatMap((kind) => (kind.ownWords ? kind.said : []))

/** Sliders, parts, the title and curves that are said by what they are; null where a text says no such thing. */
function asDefinition({ text, study, direct }: Said): Understood | null {
  const curves = () => direct().filter((offer) => makesCurve(offer, study))
  const heading = partAsked(text, study) ?? titleAsked(text, study)
  if (heading) return { ...plain, offers: [heading] }
  if (ownWords.some((words) => `${text.toLowerCase()} `.startsWith(`${words} `)) && direct()[0]) {
    return { ...plain, offers: direct() }
  }
  const claiming = allKinds.find(({ claims }) => claims?.test(text))
  if (claiming) {
    const offers = direct().filter(
      (offer) => offer.edit(study).lines.at(-1)?.kind === claiming.kind,
    )
    const [first] = offers
    const unread = first ? unreadableParts(first, study) : unknownWords(text, study)
    return { ...plain, offers, unread }
  }
  const slider = sliderAsked(text, study)
  if (slider && 'offer' in slider) {
    const offers = isCurveFirst(text)
      ? [...curves(), slider.offer]
      : [slider.offer, ...(/=/.test(text) ? curves() : [])]
    return { ...plain, offers }
  }
  if (slider) return { ...plain, offers: [] }
  const isDefined = definedName(text, study.variable.letter, curveMakers(study)) !== null
  // What is to be defined anew stands in a line already.
  if (!isDefined && !/^(?:let|given)\b/i.test(text)) return null
  const offers = curves()
  const [first] = offers
  return { ...plain, offers, unread: first && isDefined ? unreadableParts(first, study) : [] }
}

/** A request longer than this is pasted by mistake; formulas may be longer. */
const longest = 600

function asRequest(said: Said): Understood {
  const { typed, text, study, make, direct } = said
  if (typed.length > longest) return { ...plain, offers: [] }
  if (beginsAsOneKind(text) && direct().length > 0) {
    return { ...plain, offers: direct(), unread: unreadableParts(direct()[0]!, study) }
  }
  const context = readerContext(study)
  const read = readRequest(text === typed.trim() ? typed : asDefined(typed), context)
  const offers = read ? make(read.own) : []
  const unread = read && offers.length > 0 ? unreadOf(read, offers[0]!, study) : []
  const beginnings = isBeginning(text) ? direct() : []
  const found = read && offers.length > 0
  if (found && unread.length === 0) {
    return {
      ...plain,
      offers: together(offers, beginnings),
      equal: Math.min(read.equal, offers.length),
      why: read.why ?? null,
    }
  }
  if (beginnings.length > 0) return { ...plain, offers: beginnings }
  const whole = saysWhatIs.test(text)
    ? direct().filter((offer) => makesCurve(offer, study))
    : asFormula(text, study, make)
  if (whole.length > 0) {
    return { ...plain, offers: whole, unread: unreadableParts(whole[0]!, study) }
  }
  const begun = together(
    ...completed(text, (words) => {
      const reading = readRequest(words, context)
      return reading && reading.unread.length === 0 ? make(reading.own) : []
    }),
  )
  if (begun.length > 0) return { ...plain, offers: begun, begun: true, unread: [lastWord(text)] }
  return (
    asMeant(said) ??
    (found
      ? { ...plain, offers, equal: read.equal, unread, why: read.why ?? null }
      : { ...plain, offers: [], unread: unknownWords(text, study) })
  )
}

/** A request whose words have slips, as it was probably meant. */
function asMeant({ typed, study, place, span }: Said): Understood | null {
  const mended = withoutSlips(typed)
  if (!mended) return null
  const anew = understand(mended.text, study, place, span)
  return anew.offers.length > 0 && anew.unread.length === 0
    ? { ...anew, unread: mended.words, meant: mended.text }
    : null
}

/** "let …", "given …", "this graph is f″ of h": sentences about a curve that is not there yet. */
const saysWhatIs =
  /^(?:let|given)\b|^d\s*\p{L}\s*\/|\b(?:is|be)\s+(?:the\s+graph\s+of\s+)?\p{L}\s*['’′″]/u

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
/** The words that are left, or what stands in a place or a span and cannot be read. */
const unreadOf = (read: Reading, first: Offer, study: Study): readonly string[] =>
  read.unread.length > 0 ? read.unread : unreadableParts(first, study)

const lastWord = (text: string) => text.split(/\s+/).at(-1)!

/** Whether a text begins with words of a kind that the reader has none for: the kind reads it then. */
function beginsAsOneKind(text: string): boolean {
  const lower = `${text.toLowerCase()} `
  return allKinds.some(({ said }) =>
    said.some((phrase) => lower.startsWith(`${phrase} `) && !isKnown(phrase)),
  )
}
/** A question word alone does not say what is asked for. */
const isKnown = (phrase: string) =>
  askedPhrases.some(
    (asked) => phrase === asked || (asked !== 'which' && phrase.startsWith(`${asked} `)),
  )

/** The words of a request that stand in none that is known. */
function unknownWords(text: string, study: Study): string[] {
  const names = [...curveMakers(study), ...study.sliders].map(({ name }) => name)
  return tokensOf(text).flatMap(({ word, plain }) => {
    const isNumber = /^[\d.,−-]+$/.test(plain)
    const isName = names.includes(word.replace(/['’′″]*(?:\([^()]*\))?$/, ''))
    return isNumber || isName || joining.has(plain) || isKnownWord(plain) ? [] : [word]
  })
}

/** Whether a text is the beginning of what a line is asked for by. */
function isBeginning(text: string): boolean {
  const lower = text.toLowerCase()
  return allKinds.some(({ said }) => said.some((phrase) => phrase.startsWith(lower)))
}

/** A formula by itself is a curve without a letter yet. */
function asFormula(text: string, study: Study, make: Said['make']): readonly Offer[] {
  const { letter } = study.variable
  const names = curveMakers(study).map((curve) => curve.name)
  const called = text.replace(
    /(?<!\p{L})(\p{L}[₀-₉]*)(['’′″]*)(?![\p{L}'’′″(])/gu,
    (whole, name: string) => (names.includes(name) ? `${whole}(${letter})` : whole),
  )
  const parsed = readFormula(called, readingOf(study))
  if (!parsed.ok || namesIn(parsed.tree).size === 0) return []
  const name = readerContext(study).free('g', 'h', 'r', 'p')
  return make([`let ${name}(${letter}) = ${called}`])
}

/** The lines that could be meant by what was typed, likeliest first. */
export const offersFor = (
  text: string,
  study: Study,
  place: string | null,
  span: SpanText | null = null,
): readonly Offer[] => understand(text, study, place, span).offers

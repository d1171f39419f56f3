import { curveText, type CurveRef } from '../../statements/shared/slots'
import { joining, tokensOf } from '../joining'
import { type Asked, asks } from './asks'
import { inOneWay } from './inOneWay'
import { asPattern, letters } from './grammar'
import { type PartName, type Parts, takeParts } from './parts'

/** What a request says, in the words of the lines. */
export interface Reading {
  /** The likeliest first; the first `equal` are as likely as each other. */
  own: readonly string[]
  equal: number
  /** Words that no part of it answers to, as they were typed; none where all is understood. */
  unread: readonly string[]
  /** Why the nearest thing is offered instead of what was asked for. */
  why?: string
}

/** What the reader has to know of the study. */
export interface ReaderContext {
  letter: string
  /** The curves, in the study's order. */
  curves: readonly string[]
  /** Sliders that are called by a word. */
  words: readonly string[]
  free: Asked['free']
  liesOn: Asked['liesOn']
  slopeOf: Asked['slopeOf']
}

/**
 * Reads a request for a line: takes out the curves, places, spans, counts and comparisons, and looks
 * for what the words that are left ask for. null where no word asks for anything that is known.
 */
export function readRequest(typed: string, context: ReaderContext): Reading | null {
  const { words } = context
  const read = readWithLetters(inLetters(typed, words), context)
  if (!read || words.length === 0) return read
  return {
    ...read,
    own: read.own.map((own) => inWords(own, words)),
    unread: read.unread.map((word) => inWords(word, words)),
  }
}

/** Letters nobody types stand for the words that sliders are called by. */
const standIn = (index: number) => String.fromCharCode(0x410 + index)
const inLetters = (text: string, words: readonly string[]) =>
  words.reduce(
    (now, word, i) =>
      now.replace(asPattern(String.raw`(?<![\p{L}])${word}(?![\p{L}])`, 'gu'), standIn(i)),
    text,
  )
const inWords = (text: string, words: readonly string[]) =>
  words.reduce((now, word, i) => now.replaceAll(standIn(i), word), text)

function readWithLetters(typed: string, context: ReaderContext): Reading | null {
  const text = inOneWay(typed, context)
  const plain = readOnce(text, context)
  if (plain && plain.unread.length === 0) return plain
  const other = readAboutDerivative(text, context)
  if (!plain || !other) return plain ?? other
  return other.unread.length < plain.unread.length ? other : plain
}

/** "zeros of the derivative" as zeros of f′, "when is it positive" as when is f positive. */
function readAboutDerivative(text: string, context: ReaderContext): Reading | null {
  const { curves } = context
  const named = curves.filter((name) =>
    asPattern(String.raw`(?<![${letters}\d])${name}(?![${letters}])`, '').test(text),
  )
  const readings = (named.length > 0 ? named.slice(0, 1) : curves).flatMap((curve) => {
    const about = withDerivative(text, curve, context.letter)
    const reading = about === text ? null : readOnce(about, context)
    return reading ? [reading] : []
  })
  const [first] = readings
  if (!first) return null
  const likely = readings.filter((one) => one.unread.length === 0)
  if (likely.length < 2) return likely[0] ?? first
  return {
    ...first,
    own: likely.flatMap(({ own, equal }) => own.slice(0, equal)),
    equal: likely.reduce((sum, { equal }) => sum + equal, 0),
  }
}

function withDerivative(text: string, curve: string, letter: string): string {
  const of = String.raw`(?:\s+function)?(?:\s+of\s+(?:${curve}(?![${letters}])(?:\(${letter}\))?|the\s+(?:tangents?(?:\s+lines?)?|curve|graph|function)(?:\s+(?:to|of)\s+${curve}(?![${letters}]))?))?`
  const moves = letter === 't'
  const isVelocity = /^v/i.test(curve)
  const orders: [RegExp, number][] = [
    [asPattern(String.raw`(?:\bthe\s+|\bits\s+)?\bsecond\s+derivative${of}`, 'i'), 2],
    [asPattern(String.raw`(?:\bthe\s+|\bits\s+)?\bthird\s+derivative${of}`, 'i'), 3],
    [
      asPattern(
        String.raw`(?:\bthe\s+|\bits\s+)?(?:\b(?:first|instantaneous)\s+)?\b(?:derivative|slope|gradient|(?:instantaneous\s+)?rate(?:\s+of\s+change)?)${of}`,
        'i',
      ),
      1,
    ],
    [
      /(?:\bthe\s+|\bits\s+)?\btangents?(?:\s+lines?)?(?=\s+(?:is|are|has|have)\b)(?:\s+(?:has|have)\s+slope)?/i,
      1,
    ],
    ...(moves
      ? ([
          [/(?:\b(?:the|its|instantaneous)\s+)*\bvelocity\b/i, isVelocity ? 0 : 1],
          [/(?:\b(?:the|its|instantaneous)\s+)*\bacceleration\b/i, isVelocity ? 1 : 2],
          [/(?:\b(?:the|its)\s+)*\b(?:position|height)\b/i, 0],
        ] as [RegExp, number][])
      : []),
    [/\b(?:it|the\s+(?:function|curve|graph)(?!\s+(?:of|to)\b))\b/i, 0],
  ]
  const found = orders.find(([pattern]) => pattern.test(text))
  if (!found) return text
  // Two derivatives are two requests.
  const others = orders.filter(
    ([pattern, order]) => order > 0 && pattern.test(text.replace(found[0], ' ')),
  )
  if (found[1] > 0 && others.length > 0) return text
  return text
    .replace(found[0], ` ${curve}${'′'.repeat(found[1])} `)
    .replace(/\s+/g, ' ')
    .trim()
}

interface Fit {
  own: readonly string[]
  equal: number
  unread: string[]
  weight: number
  why: string
}

function readOnce(text: string, context: ReaderContext): Reading | null {
  const { letter, curves } = context
  const taken = takeParts(text, { letter, isCurve: (name) => curves.includes(name) })
  const words = tokensOf(taken.left)
  const asked: Asked = {
    ...context,
    parts: taken.parts,
    words: words.map((word) => word.plain).join(' '),
  }
  const { refs } = taken.parts
  const unused = (uses: readonly PartName[]) =>
    (Object.keys(taken.words) as PartName[])
      .filter((name) => !uses.includes(name))
      .flatMap((name) => tokensOf(taken.words[name]!).filter(({ plain }) => !joining.has(plain)))
  const bare = impliedBy(asked, words, curves)
  if (bare) return { own: bare, equal: refs.length === 0 ? bare.length : 1, unread: [] }

  const fits = asks.flatMap(({ ask, phrases, also }): Fit[] => {
    const phrase = longestIn(phrases, words)
    if (phrase === null) return []
    const two = 'both' in ask
    const builtOf = (from: Asked) =>
      two
        ? pairsOf(refs, curves).map(([a, b]) => ask.both(a, b, from))
        : singles(refs, curves).map((ref) => ask.own(ref, from))
    const built = builtOf(asked)
    const own = built.flatMap((lines) => (lines ? lines.slice(0, 1) : []))
    if (own.length === 0) return []
    const rest = built.flatMap((lines) => lines?.slice(1) ?? [])
    const left = words.filter(
      ({ plain }) =>
        !phrase.includes(plain) && !also.has(plain) && !joining.has(plain) && plain !== letter,
    )
    const why = ask.why?.(singles(refs, curves)[0]!, asked) ?? ''
    const answered =
      why === '' ? ask.uses.filter((name) => answersTo(name, asked, built, builtOf)) : ask.uses
    const unread = [
      ...left.map(({ word }) => word),
      ...unused(answered)
        .filter(({ plain }) => !also.has(plain))
        .map(({ word }) => word),
      ...refs.slice(two ? 2 : 1).map(curveText),
    ]
    const weight = phrase.filter((word) => !joining.has(word)).length + phrase.length / 100
    return [{ own: [...own, ...rest], equal: own.length, unread, weight, why }]
  })
  const best = fits.sort((a, b) => a.unread.length - b.unread.length || b.weight - a.weight)[0]
  if (!best || (best.weight < 1 && best.unread.length > 0)) return null
  const { own, equal, unread, why } = best
  return { own, equal, unread: [...new Set(unread)], ...(why === '' ? {} : { why }) }
}

/** Other values than anyone types, for each part that can be said. */
const others: Readonly<Omit<Required<Parts>, 'refs'>> = {
  ...{ place: '7919', openFrom: '7919', count: '7919', step: '7919', slope: '7919', h: '7919' },
  ...{ pair: ['7919', '7920'], point: { x: '7919', y: '7919', on: false }, degree: '3' },
  ...{ span: { from: '7919', to: '7920' }, compared: { relation: '=', target: '7919' } },
  ...{ start: { at: '7919', value: '7919' }, plus: '7919', taken: 'itself', about: 'w' },
  ...{ rule: 'upper', side: 'left', axis: 'y', readAs: 'velocity' },
}

/**
 * Whether what is built hangs on a part: with another value, or without it, it is something else. What
 * is the same all the same does not answer to it, whatever it says it uses.
 */
function answersTo<T>(
  name: PartName,
  asked: Asked,
  built: T,
  builtOf: (asked: Asked) => T,
): boolean {
  if (name === 'refs' || asked.parts[name] === undefined) return true
  const same = JSON.stringify(built)
  const differs = (parts: Parts) => JSON.stringify(builtOf({ ...asked, parts })) !== same
  const { [name]: _, ...rest } = asked.parts
  return differs({ ...asked.parts, [name]: others[name] }) || differs(rest)
}

/** A curve by itself, or called at a place, asks without a word. */
function impliedBy(
  { parts, liesOn }: Asked,
  words: readonly { plain: string }[],
  curves: readonly string[],
): string[] | null {
  const { refs, point } = parts
  const named = (Object.keys(parts) as PartName[]).filter((name) => name !== 'refs')
  if (words.some(({ plain }) => !joining.has(plain)) || refs.length > 1) return null
  if (named.length === 1 && point?.on) {
    const meant = refs.length > 0 ? refs : curves.map((curve) => ({ curve, order: 0 }))
    const there = meant.filter((ref) => liesOn(ref, point))
    return there.length > 0 ? there.map((ref) => `value of ${curveText(ref)} at ${point.x}`) : null
  }
  if (refs.length === 0) {
    return named.length === 1 && parts.place !== undefined && !/∞/.test(parts.place)
      ? curves.map((curve) => `value of ${curve} at ${parts.place!}`)
      : null
  }
  const name = curveText(refs[0]!)
  if (named.length === 1 && parts.place !== undefined && !/∞/.test(parts.place))
    return [`value of ${name} at ${parts.place}`]
  if (named.length > 0) return null
  if (words.some(({ plain }) => /^(?:graph|plot|sketch|draw)$/.test(plain))) return null
  return refs[0]!.order > 0 ? [`rate ${name}`, `value of ${name}`] : [`value of ${name}`]
}

const singles = (refs: readonly CurveRef[], curves: readonly string[]): CurveRef[] =>
  refs.length > 0 ? refs.slice(0, 1) : curves.map((curve) => ({ curve, order: 0 }))

function pairsOf(refs: readonly CurveRef[], curves: readonly string[]): [CurveRef, CurveRef][] {
  const [first, second] = refs
  if (first && second) return [[first, second]]
  if (first) return []
  const all = curves.map((curve) => ({ curve, order: 0 }))
  return all.flatMap((a, i) => all.slice(i + 1).map((b): [CurveRef, CurveRef] => [a, b]))
}

/** The words of the longest phrase all of whose words are there; null where none is. */
function longestIn(
  phrases: readonly (readonly string[])[],
  words: readonly { plain: string }[],
): readonly string[] | null {
  const there = new Set(words.map(({ plain }) => plain))
  const found = phrases.filter((phrase) => phrase.every((word) => there.has(word)))
  return [...found].sort((a, b) => b.length - a.length)[0] ?? null
}

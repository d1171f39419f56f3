import { slipsBetween } from '../language/slips'
import { allKinds } from '../statements'
import { joining, tokensOf } from './joining'
import { asks } from './reader/asks'

const known: ReadonlySet<string> = new Set([
  ...allKinds.flatMap(({ said }) => said.flatMap((phrase) => phrase.split(' '))),
  ...asks.flatMap(({ phrases, also }) => [...phrases.flat(), ...also]),
])
export const isKnownWord = (word: string) => known.has(word)

const shortest = 5
const longWord = 9

/** The word that was meant by one with a slip: letters left out, put in, changed or swapped. */
function meantBy(word: string): string | null {
  const typed = word.toLowerCase()
  if (typed.length < shortest || known.has(typed) || joining.has(typed)) return null
  const most = typed.length >= longWord ? 2 : 1
  let best: { word: string; slips: number } | null = null
  for (const one of known) {
    if (one.length < shortest || Math.abs(one.length - typed.length) > most) continue
    const slips = slipsBetween(typed, one)
    if (slips <= most && (!best || slips < best.slips)) best = { word: one, slips }
  }
  return best?.word ?? null
}

/** A request without its slips, and which words they were in; null where there are none. */
export function withoutSlips(text: string): { text: string; words: string[] } | null {
  let mended = text
  const words: string[] = []
  for (const { word, plain } of tokensOf(text)) {
    const meant = meantBy(plain)
    if (meant === null) continue
    words.push(word)
    mended = mended.replace(word, meant)
  }
  return words.length === 0 ? null : { text: mended, words }
}

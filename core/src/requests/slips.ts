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
export function meantBy(word: string): string | null {
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

/**
 * How many letters are left out, put in, changed or swapped with the next: the optimal string
 * alignment distance (F. J. Damerau, 1964, from memory).
 */
function slipsBetween(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) => [i])
  for (let j = 1; j <= b.length; j += 1) rows[0]!.push(j)
  for (let i = 1; i <= a.length; i += 1) {
    for (let j = 1; j <= b.length; j += 1) {
      const changed = rows[i - 1]![j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)
      let least = Math.min(rows[i - 1]![j]! + 1, rows[i]![j - 1]! + 1, changed)
      const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]
      if (swapped) least = Math.min(least, rows[i - 2]![j - 2]! + 1)
      rows[i]!.push(least)
    }
  }
  return rows[a.length]![b.length]!
}

import { allKinds } from '../../statements'
import { askedPhrases } from './asks'

/** Every phrase that asks for a line, in the order in which they are likely. */
const phrases: readonly string[] = [
  ...new Set([...allKinds.flatMap(({ said }) => said), ...askedPhrases]),
]

const mostTried = 12
const longestPhrase = 4

/**
 * What is found for a text whose last words are the beginning of a phrase, for each phrase that
 * they may become.
 */
export function completed<T>(
  text: string,
  find: (words: string) => readonly T[],
): (readonly T[])[] {
  const words = text.split(/\s+/)
  const lists: (readonly T[])[] = []
  let tried = 0
  for (let last = Math.min(longestPhrase, words.length); last >= 1; last -= 1) {
    const kept = words.slice(0, words.length - last).join(' ')
    const begun = words
      .slice(words.length - last)
      .join(' ')
      .toLowerCase()
    // One letter behind others begins too much.
    if (kept !== '' && begun.length < 3) continue
    for (const phrase of phrases) {
      if (!phrase.startsWith(begun) || phrase === begun || tried >= mostTried) continue
      tried += 1
      lists.push(find(`${kept} ${phrase}`.trim()))
    }
  }
  return lists
}

import { offersFor, whyNothing } from '../requests/offers'
import { equalReadings, unreadWords } from '../requests/unread'
import type { Study } from '../study/schema'

export type Said =
  | { study: Study; sentence: string; others: string[] }
  /** Nothing was added: why, and the sentences that could be meant. */
  | { study: Study; problem: string; choices: string[] }

/**
 * Adds the first line or slider that some words offer, as “Say what to add” does; the id of a line is
 * the next free `lineN`. Nothing is added where words are left that no line answers to, or where the words could
 * mean two things equally well: then the sentences to choose from come back.
 */
export function say(study: Study, words: string): Said {
  const [first, ...others] = offersFor(words, study, null)
  if (!first) return { study, problem: whyNothing(words, study), choices: [] }
  const sentences = [first, ...others].map(({ sentence }) => sentence)
  const unread = unreadWords(words, study)
  if (unread.length > 0) {
    const left = unread.map((word) => `“${word}”`).join(', ')
    return { study, problem: `${left} was not understood`, choices: sentences }
  }
  const equal = equalReadings(words, study)
  if (equal.length > 0) {
    const choices = [first, ...equal].map(({ sentence }) => sentence)
    return { study, problem: `“${words.trim()}” could mean ${choices.length} things`, choices }
  }
  const [sentence, ...rest] = sentences
  return { study: first.edit(study), sentence: sentence!, others: rest }
}

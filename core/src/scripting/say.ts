import { whyNothing } from '../requests/offers'
import { understand } from '../requests/understand'
import type { Study } from '../study/schema'

export type Said =
  | { study: Study; sentence: string; others: string[] }
  /** Nothing was added: why, and the sentences that could be meant. */
  | { study: Study; problem: string; choices: string[] }

/**
 * Adds the first line or slider that some words offer, as “Say what to add” does; the id of a line is
 * the next free `lineN`. Nothing is added where words are left that no line answers to, where the words
 * could mean two things equally well, or where only something near can be built: then the sentences
 * to choose from come back.
 */
export function say(study: Study, words: string): Said {
  const { offers, equal, unread, meant, why } = understand(words, study)
  const [first] = offers
  if (!first) return { study, problem: whyNothing(words, study), choices: [] }
  const [sentence, ...others] = offers.map((offer) => offer.sentence)
  const choices = [sentence!, ...others]
  if (unread.length > 0) {
    const left = unread.map((word) => `“${word}”`).join(', ')
    const perhaps = meant === null ? '' : `: “${meant}”?`
    return { study, problem: `${left} was not understood${perhaps}`, choices }
  }
  if (why !== null) return { study, problem: why, choices }
  if (equal > 1) {
    const problem = `“${words.trim()}” could mean ${equal} things`
    return { study, problem, choices: choices.slice(0, equal) }
  }
  return { study: first.edit(study), sentence: sentence!, others }
}

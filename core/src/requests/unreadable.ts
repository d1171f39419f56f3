import { readFormula } from '../calculus/readFormula'
import { kindOf } from '../statements'
import { spansOf, textsOf } from '../statements/shared/uses'
import { readingOf } from '../study/edits/names'
import type { Study } from '../study/schema'
import { withPowerOfTen } from '../vocabulary/values'
import { joining } from './joining'
import type { Offer } from './offer'

const bare = (word: string) => word.toLowerCase().replace(/^[^\p{L}\d.]+|[^\p{L}\d]+$/gu, '')

/**
 * What stands behind the readable beginning of a place, a span or a number: “2 in the lagoon” begins
 * with a place. A letter without a value is readable: its line offers to give it one.
 */
export function unreadableParts(offer: Offer, study: Study): string[] {
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

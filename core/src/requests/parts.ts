import { addPart } from '../study/edits/parts'
import type { Study } from '../study/schema'
import type { Offer } from './offer'

const asked =
  /^(?:(?:add|make|begin|new)\s+)?(?:an?\s+)?(?:new\s+)?(?:part|section|heading)(?:\s+(?:called|named|on|about))?(?:[\s:]+(.+))?$/i

/** The part that a text asks for, such as "part Sums"; null where it asks for none, or all are taken. */
export function partAsked(typed: string, study: Study): Offer | null {
  const found = asked.exec(typed.trim())
  if (!found) return null
  const title = (found[1] ?? '')
    .trim()
    .replace(/^[“"']|[”"']$/g, '')
    .slice(0, 120)
  const edit = addPart(title)
  const part = edit(study).parts.at(-1)
  if (!part || part === study.parts.at(-1)) return null
  return { sentence: title ? `Part ${part.letter}: ${title}` : `Part ${part.letter}`, edit }
}

import { allKinds, pointOf, wordsOf } from '../statements'
import { changeLine } from '../study/edits/lines'
import type { Offer } from './offer'

/** What can have a caption is asked for by these words. */
const captioned = allKinds.flatMap(({ uses, said }) => (uses.words && uses.point ? said : []))
const longest = 400

/** "marker raft on w, caption {w(a)} m": the request before the caption, and its words; else null. */
export function captionSaid(text: string): { rest: string; caption: string } | null {
  const lower = text.toLowerCase()
  if (!captioned.some((words) => lower.startsWith(`${words} `))) return null
  const found = /^(.*?)[\s,;]+(?:with\s+)?(?:the\s+|a\s+)?caption\b[\s:]*(.+)$/is.exec(text)
  if (!found) return null
  const caption = found[2]!.trim().replace(/^[“"](.*)[”"]$/s, '$1')
  return { rest: found[1]!.trim(), caption: caption.slice(0, longest) }
}

/** The same offer, whose line has a caption. */
export const withCaption = (offer: Offer, caption: string): Offer => ({
  ...offer,
  sentence: `${offer.sentence.replace(/caption$/, '')}“${caption}”`,
  edit(study) {
    const next = offer.edit(study)
    const line = next.lines.at(-1)
    const words = line && pointOf(line) ? wordsOf(line) : null
    return line && words ? changeLine(line.id, { [words.field]: caption })(next) : next
  },
})

import { changeDisplay, changeStudy } from '../study/edits/study'
import type { Study } from '../study/schema'
import type { Offer } from './offer'

const asked = /^(?:(?:add|put)\s+(?:a|the)\s+)?title(?:\s*:\s*|\s+)(.+)$/is

/** The title that a text puts on the picture, such as "title A raft on the swell"; null where it puts none. */
export function titleAsked(typed: string, study: Study): Offer | null {
  const title = asked
    .exec(typed.trim())?.[1]!
    .trim()
    .replace(/^[“"']|[”"']$/g, '')
    .slice(0, 120)
  if (!title || !study.lanes.length) return null
  return {
    sentence: `Title on the picture: ${title}`,
    edit: (now) => changeDisplay({ title: true })(changeStudy({ title })(now)),
  }
}

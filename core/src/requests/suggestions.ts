import { allKinds, isCurveMaker, kindOf, type Statement } from '../statements'
import type { Study } from '../study/schema'
import type { SpanText } from '../vocabulary/members'
import type { Offer } from './offer'
import { linesFor } from './offers'
import { partAsked } from './parts'
import { sliderAsked } from './sliders'
import { freshName } from '../study/edits/names'

/** Where what can be said belongs. */
export type Group = 'surface' | 'place' | 'span' | 'whole' | 'beside'

/** Something that can be said: the words for it, and what they come to here. */
export interface Suggestion {
  words: string
  offer: Offer
}

const groupOf = (line: Statement): Group => {
  const { places = [], spans = [], surfaces = [] } = kindOf(line).uses
  if (surfaces.length > 0) return 'surface'
  // A curve made of another one is about the whole of it.
  if (isCurveMaker(line)) return 'whole'
  return places.length > 0 ? 'place' : spans.length > 0 ? 'span' : 'whole'
}

/**
 * What can be said here, by where it belongs: the plain words of every kind of line that has
 * something to be about. What a selected place or span can have comes first.
 */
export function suggestions(
  study: Study,
  place: string | null = null,
  span: SpanText | null = null,
): readonly { group: Group; list: readonly Suggestion[] }[] {
  const lists: Record<Group, Suggestion[]> = {
    ...{ surface: [], place: [], span: [], whole: [], beside: [] },
  }
  const seen = new Set<string>()
  const offered = (words: string, kind: string) => {
    const all = linesFor([words], study, place, span)
    const made = (one: Offer | undefined) => one?.edit(study).lines.at(-1)
    const offer = all.find((one) => made(one)?.kind === kind) ?? all[0]
    const line = made(offer)
    if (!offer || !line || seen.has(offer.sentence)) return
    seen.add(offer.sentence)
    lists[groupOf(line)].push({ words, offer })
  }
  for (const { said, kind } of allKinds) {
    said.filter(isPlain).forEach((words) => offered(words, kind))
  }
  const slider = sliderAsked(`slider ${freshName(study, 'a')}`, study)
  if (slider && 'offer' in slider) {
    lists.beside.push({ words: `slider ${freshName(study, 'a')}`, offer: slider.offer })
  }
  const part = partAsked('part', study)
  if (part) lists.beside.push({ words: 'part', offer: part })
  const order: readonly Group[] =
    span && !place
      ? ['span', 'place', 'surface', 'whole', 'beside']
      : ['surface', 'place', 'span', 'whole', 'beside']
  return order.map((group) => ({ group, list: lists[group] })).filter(({ list }) => list.length > 0)
}

/** One way to say each thing: not "tangent to" beside "tangent". */
const isPlain = (phrase: string) => !/\s(?:of|to|at|from|under|by)$/.test(phrase)

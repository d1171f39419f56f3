import { allKinds, isFormulaLine, kindOf } from '../statements'
import type { Study } from './schema'

/** What a study with a formula in pieces is about, besides. */
const pieces = 'pieces'

/** Everything a study can be about, as the list of studies names it. */
export const allTopics: readonly string[] = [
  ...new Set([...allKinds.flatMap(({ topic }) => topic ?? []), pieces]),
]

/** What a study is about. */
export function topicsOf(study: Study): string[] {
  const topics = new Set<string>()
  for (const line of study.lines) {
    const { topic } = kindOf(line)
    if (topic !== null) topics.add(topic)
    if (isFormulaLine(line) && /\bif\b/.test(line.formula)) topics.add(pieces)
  }
  return [...topics]
}

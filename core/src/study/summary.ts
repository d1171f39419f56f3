import { isFormulaLine, kindOf } from '../statements'
import type { Topic } from '../vocabulary/topics'
import type { Study } from './schema'

/** What a study is about. */
export function topicsOf(study: Study): Topic[] {
  const topics = new Set<Topic>()
  for (const line of study.lines) {
    const { topic } = kindOf(line)
    if (topic !== null) topics.add(topic)
    if (isFormulaLine(line) && /\bif\b/.test(line.formula)) topics.add('pieces')
  }
  return [...topics]
}

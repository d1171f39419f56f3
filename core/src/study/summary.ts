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
  const topics = study.lines.flatMap((line) => [
    ...(kindOf(line).topic === null ? [] : [kindOf(line).topic!]),
    ...(isFormulaLine(line) && /\bif\b/.test(line.formula) ? [pieces] : []),
  ])
  return [...new Set(topics)]
}

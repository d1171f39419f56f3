import type { Study } from './schema'

/** What a study is about, in the words of the list of studies. */
export function topicsOf(study: Study): string[] {
  const topics = new Set<string>()
  for (const line of study.lines) {
    if (line.kind === 'tangent' || line.kind === 'rate' || line.kind === 'value')
      topics.add('rates')
    if (line.kind === 'curve' && /\bif\b/.test(line.formula)) topics.add('pieces')
  }
  return [...topics]
}

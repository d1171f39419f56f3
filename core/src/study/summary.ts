import type { Statement } from '../statements'
import type { Study } from './schema'

/** What each kind of line is about, in the words of the list of studies. */
const topicOf: Partial<Record<Statement['kind'], string>> = {
  tangent: 'rates',
  rate: 'rates',
  value: 'rates',
  secant: 'rates',
  normal: 'rates',
  averageRate: 'rates',
  where: 'solving',
  table: 'tables',
  fit: 'tables',
  readings: 'readings',
  area: 'areas',
  between: 'areas',
  average: 'areas',
  accumulate: 'areas',
  features: 'extremes',
  distance: 'extremes',
  conclude: 'reasoning',
  signs: 'reasoning',
}

/** Everything a study can be about, as the list of studies names it. */
export const allTopics: readonly string[] = [...new Set([...Object.values(topicOf), 'pieces'])]

/** What a study is about. */
export function topicsOf(study: Study): string[] {
  const topics = new Set<string>()
  for (const line of study.lines) {
    const topic = topicOf[line.kind]
    if (topic) topics.add(topic)
    if (line.kind === 'curve' && /\bif\b/.test(line.formula)) topics.add('pieces')
  }
  return [...topics]
}

/** What a study can be about, in the order in which the list of studies offers it. */
export const allTopics = [
  'rates',
  'areas',
  'extremes',
  'solving',
  'series',
  'limits',
  'reasoning',
  'tables',
  'readings',
  'pieces',
  'surfaces',
] as const
export type Topic = (typeof allTopics)[number]

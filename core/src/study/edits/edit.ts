import type { Statement } from '../../statements'
import type { Study } from '../schema'

/** Every change of a study is one of these: a pure function from a study to the next one. */
export type Edit = (study: Study) => Study

export const replaceLine = (
  study: Study,
  id: string,
  change: (line: Statement) => Statement,
): Study => ({
  ...study,
  lines: study.lines.map((line) => (line.id === id ? change(line) : line)),
})

/** A study after a move, with what was moved as it is written now. */
export interface Moved<T> {
  study: Study
  now: T
}

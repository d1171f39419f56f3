import { type Statement, tintsOf } from '@yperkine/core'
import { useStudy } from '../store'

/** The class that gives a line the colour of what it draws; empty where it draws nothing of its own. */
export function useTint({ id }: Statement): string {
  const tint = useStudy((s) => tintsOf(s.lines).get(id))
  return tint ? `tint-${tint}` : ''
}

import { tokenize } from '../../language/tokens'
import { renameLine, type Statement } from '../../statements'
import { withPowerOfTen } from '../../vocabulary/values'
import type { Study } from '../schema'
import { readingOf } from './names'

/** The sliders that stand in a line, in a formula that cannot be read as well. */
export function slidersIn(line: Statement, study: Study): Set<string> {
  const reading = readingOf(study)
  const names = new Set(study.sliders.map((s) => s.name))
  const found = new Set<string>()
  renameLine(line, (text) => {
    for (const token of tokenize(withPowerOfTen(text), reading).tokens) {
      if (token.kind === 'name' && names.has(token.name)) found.add(token.name)
    }
    return text
  })
  return found
}

const usedIn = (study: Study): Set<string> =>
  new Set(study.lines.flatMap((line) => [...slidersIn(line, study)]))

/**
 * Takes away the sliders that an edit has left without use: those that stood in a line before and
 * stand in none now. A slider that never stood in one is someone's own and stays.
 */
export function withoutUnused(before: Study, after: Study): Study {
  if (before.lines === after.lines || after.sliders.length === 0) return after
  const used = usedIn(after)
  const idle = after.sliders.filter((s) => !used.has(s.name))
  if (idle.length === 0) return after
  const usedBefore = usedIn(before)
  const gone = new Set(idle.filter((s) => usedBefore.has(s.name)).map((s) => s.name))
  if (gone.size === 0) return after
  return { ...after, sliders: after.sliders.filter((s) => !gone.has(s.name)) }
}

import type { Statement } from '../statements'
import { judge, printCondition, readCondition, readPart } from '../statements/condition'
import type { LineContext } from '../statements/contract'
import { letterOfPart, partIsOn } from '../study/parts'
import type { Study } from '../study/schema'
import type { Cells } from './cells'
import type { Read } from './reading'

/** Something wrong with a condition, with the text of it that is underlined. */
export interface ShowingProblem {
  message: string
  fix?: string
  piece: string
  /** It names a part that is gone. */
  gone: boolean
}

/** Whether a line is shown, and what is to be said about that. */
export interface Showing {
  shown: boolean
  /** What hides it. */
  by: 'part' | 'condition' | null
  /** Its condition as it is read, or null where it has none. */
  when: string | null
  problems: readonly ShowingProblem[]
  /** What is not settled, or that it is never shown. */
  note: string | null
}

const always: Showing = { shown: true, by: null, when: null, problems: [], note: null }
const partOff: Showing = { ...always, shown: false, by: 'part' }

/** Says of lines whether they are shown, in one working out of a study. */
export function showingOf(
  cells: Cells,
  read: Read,
  context: LineContext,
): (line: Statement) => Showing {
  return ({ id, when, part }) => {
    if (when === undefined && part === undefined) return always
    return cells.cell(
      `shown:${id}:${part ?? ''}:${when ?? ''}`,
      () => decide(when, part),
      sameShowing,
    )
  }

  function decide(when: string | undefined, part: string | undefined): Showing {
    const parts = read<Study['parts']>('parts')
    const isOn = part === undefined || parts.find(({ id }) => id === part)?.on !== false
    if (when === undefined) return isOn ? always : partOff
    const found = readCondition(when)
    if (!found.ok) {
      const problems = found.problems.map(({ message, fix, from, to }) => ({
        ...{ message, piece: when.slice(from, to), gone: false },
        ...(fix === undefined ? {} : { fix }),
      }))
      return { shown: isOn, by: isOn ? null : 'part', when, problems, note: null }
    }
    const { condition } = found
    const part_ = readPart(letterOfPart(parts))
    const text = printCondition(condition, { part: part_ })
    const { holds, unsettled, troubles } = judge(condition, context, partIsOn(parts))
    const problems = troubles.map(({ message, fix, at }) => {
      const gone = message.startsWith('there is no part')
      const piece = at.text.replace(/\[[^\]]*\]$/, '')
      return { message, piece, gone, ...(fix === undefined ? {} : { fix }) }
    })
    const note =
      problems.length > 0 || holds
        ? null
        : unsettled !== null
          ? `not settled, so not shown: ${unsettled}`
          : read<string | null>(`never:${when}`)
    return {
      shown: isOn && holds,
      by: !isOn ? 'part' : holds ? null : 'condition',
      when: text,
      problems,
      note,
    }
  }
}

const sameShowing = (a: Showing, b: Showing) =>
  a.shown === b.shown &&
  a.by === b.by &&
  a.when === b.when &&
  a.note === b.note &&
  a.problems.length === b.problems.length &&
  a.problems.every((p, i) => p.message === b.problems[i]!.message)

import type { RealFunction } from '../../evaluate/compile'
import type { Steps } from '../../features/budget'
import { type Solutions, solveInSteps } from '../../features/solve'
import { keyOf } from '../../formula/tree'
import type { CurveResult, LineContext, LongWork } from '../contract'

/** What is to be solved, for a curve of the study. */
export interface Question {
  curve: CurveResult
  question: Parameters<typeof solveInSteps>
}

/** The work on a question, and its outcome once there is one. */
export interface Solving {
  work: Steps<Solutions>
  found: Solutions | null
}

/** A function by what it is, whatever object it is. */
const functionKey = ({ tree, parameters }: RealFunction) =>
  `${keyOf(tree)} ${JSON.stringify(parameters)}`

/** The work on a question, one for all lines that ask it. */
export function solvingOf({ curve, question }: Question, context: LineContext): Solving {
  const [f, target, from, to] = question
  const wanted = typeof target === 'number' ? target : functionKey(target)
  return context.memo(curve, `where ${functionKey(f)} ${wanted} ${from} ${to}`, () => ({
    work: solveInSteps(...question),
    found: null,
  }))
}

/** The long work of a line that solves something: it is put where every line that asks the same finds it. */
export const longSolving = <L>(
  ask: (line: L, context: LineContext) => (Question & { ok: true }) | { ok: false },
): LongWork<L> => ({
  steps(line, context) {
    const asked = ask(line, context)
    return asked.ok ? solved(solvingOf(asked, context)) : null
  },
  apply(line, outcome, context) {
    const asked = ask(line, context)
    if (asked.ok) solvingOf(asked, context).found = outcome as Solutions
  },
})

/** Work that was stopped before goes on where it was, and what is solved is not solved again. */
export function* solved(solving: Solving): Steps<Solutions> {
  return (solving.found ??= yield* solving.work)
}

import { finish } from '../features/budget'
import { createEvaluator } from '../results/evaluate'
import type { Evaluation } from '../results/evaluation'
import type { Study } from '../study/schema'

/** What a study comes to with all long work done, however long that takes. */
export function evaluatedThrough(study: Study): Evaluation {
  const evaluate = createEvaluator({ patience: Infinity })
  let evaluation = evaluate(study)
  for (const line of study.lines) {
    const result = evaluation.lines.get(line.id)!
    const work = result.pending ? evaluate.long(study, line.id) : null
    if (work && evaluate.apply(result, finish(work))) evaluation = evaluate(study)
  }
  return evaluation
}

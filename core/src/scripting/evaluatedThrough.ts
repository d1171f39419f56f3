import { finish } from '../features/budget'
import { createEvaluator } from '../results/evaluate'
import type { Evaluation } from '../results/evaluation'
import type { Study } from '../study/schema'

/** Works studies out with all long work done, however long that takes; what they share is kept. */
export function createThoroughEvaluator(): (study: Study) => Evaluation {
  const evaluate = createEvaluator({ patience: Infinity })
  return (study) => {
    let evaluation = evaluate(study)
    for (const line of study.lines) {
      const result = evaluation.lines.get(line.id)!
      const work = result.pending ? evaluate.long(study, line.id) : null
      if (work && evaluate.apply(result, finish(work))) evaluation = evaluate(study)
    }
    return evaluation
  }
}

/** What a study comes to with all long work done. */
export const evaluatedThrough = (study: Study): Evaluation => createThoroughEvaluator()(study)

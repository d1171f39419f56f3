import { type CurveResult, roundStep } from '@yperkine/core'
import { useEffect, useEffectEvent, useRef } from 'react'
import { useWorkerQuestion } from '../../work/useWorkerQuestion'
import { type Examined, useWorkbench, useWorkbenchStore } from '../store'

/** A stretch of the axis that has been asked about, of a curve. */
interface Looked {
  curve: CurveResult
  from: number
  to: number
}

/**
 * Has a curve examined in the worker whenever it has changed, and one that is drawn everywhere again
 * when the frame leaves what has been looked at; what was found goes to the store.
 */
export function useFindings(curve: string) {
  const store = useWorkbenchStore()
  // A curve keeps its identity while a place moves, so a drag asks nothing.
  const subject = useWorkbench((s) => s.evaluation.curves.get(curve))
  const isOpen = subject?.ok === true && subject.curve.window !== null
  const looked = useRef<Looked | null>(null)
  const left = useWorkbench((s) => {
    const last = looked.current
    return isOpen && last !== null && (s.scene.x[0] < last.from || s.scene.x[1] > last.to)
  })
  const { ask } = useWorkerQuestion<'examination', Omit<Examined, 'examination'>>('examination', {
    answer: ({ found }, asked) =>
      store.getState().setFinding(curve, { ...asked, examination: found }),
    // A curve that cannot be examined has no finding; its lane says what is wrong with it.
    fault: () => store.getState().setFinding(curve, null),
  })
  const onCurve = useEffectEvent(() => {
    // Without a formula nothing can be proven, and nothing is claimed.
    if (!subject?.ok || !subject.curve.formula) {
      if (store.getState().examined.has(curve)) store.getState().setFinding(curve, null)
      return
    }
    const { evaluation, scene } = store.getState()
    const last = looked.current
    const isSeen = last !== null && last.from <= scene.x[0] && last.to >= scene.x[1]
    if (last?.curve === subject.curve && (isSeen || !subject.curve.window)) return
    const stretch = toLookAt(subject.curve, scene.x, evaluation.study.frame !== null)
    looked.current = { curve: subject.curve, ...stretch }
    ask({ study: JSON.stringify(evaluation.study), curve, ...stretch }, { subject, ...stretch })
  })
  useEffect(() => onCurve(), [subject, curve, left])
}

/** The span of a curve; of one that is drawn everywhere, what is in view with room for a move. */
function toLookAt(
  { from, to, window }: CurveResult,
  [x0, x1]: readonly [number, number],
  isSet: boolean,
) {
  if (!window) return { from, to }
  const [low, high] = window
  // What a study opens on is looked over as it is; beyond that on round bounds, with room for a move.
  if (!isSet) return { from: Math.min(x0, low), to: Math.max(x1, high) }
  if (x0 >= low && x1 <= high) return { from: low, to: high }
  const room = (x1 - x0) / 2
  const step = roundStep(room / 5)
  const tidy = (n: number) => Number((n * step).toPrecision(12))
  return {
    from: x0 < low ? tidy(Math.floor((x0 - room) / step)) : low,
    to: x1 > high ? tidy(Math.ceil((x1 + room) / step)) : high,
  }
}

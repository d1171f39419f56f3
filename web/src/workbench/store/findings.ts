import type { Evaluation, Examination, Finding, Findings } from '@yperkine/core'
import type { Workbench } from './state'

/** What was found, marked where its curve has changed since; the same finding stays the same. */
export function createFindings() {
  const made = new WeakMap<Examination, { fresh: Finding; stale: Finding }>()
  let last: { parts: Finding[]; findings: Findings } | null = null
  return (evaluation: Evaluation, examined: Workbench['examined']): Findings => {
    const entries = [...examined].map(([curve, { subject, examination }]) => {
      let pair = made.get(examination)
      if (!pair) {
        pair = {
          fresh: { examination, stale: false },
          stale: { examination, stale: true },
        }
        made.set(examination, pair)
      }
      const stale = evaluation.curves.get(curve) !== subject
      return [curve, stale ? pair.stale : pair.fresh] as const
    })
    const parts = entries.map(([, finding]) => finding)
    if (last?.parts.length === parts.length && last.parts.every((p, i) => p === parts[i])) {
      return last.findings
    }
    const findings = new Map(entries)
    last = { parts, findings }
    return findings
  }
}

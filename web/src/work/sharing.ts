import type { Study } from '@yperkine/core'

/**
 * A study that came over as text, with the parts it shares with an earlier one as the same objects:
 * what is the same object need not be worked out again.
 */
export function sharingParts(study: Study, before: Study | null): Study {
  if (!before) return study
  const lines = new Map(before.lines.map((l) => [l.id, l]))
  const shared = <T>(next: T, last: T | undefined): T =>
    last !== undefined && JSON.stringify(next) === JSON.stringify(last) ? last : next
  return {
    ...study,
    variable: shared(study.variable, before.variable),
    display: shared(study.display, before.display),
    lines: study.lines.map((line) => shared(line, lines.get(line.id))),
  }
}

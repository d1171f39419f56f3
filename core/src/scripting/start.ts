import { begin } from '../requests/start'
import type { Study } from '../study/schema'

/** A text that cannot begin a study, with why and where. */
export class Unreadable extends Error {
  constructor(
    message: string,
    readonly problems: readonly { message: string; from: number; to: number; fix?: string }[],
  ) {
    super(message)
  }
}

/**
 * A study from what the start field takes: a function, with a span behind it or without one, such as
 * `q(t) = 6 + sin t for 0 ≤ t ≤ 10`; requests behind it, and the sentence of an exercise with a formula
 * in it, as far as they are understood. Letters other than the variable get a slider, as they would in
 * one press. Throws `Unreadable` with the problems, whose offsets are 0-based into the text.
 */
export function startStudy(text: string): Study {
  const first = begin(text).created
  if (first.ok) return first.study
  const missing = first.problems.flatMap((p) => (p.missing === undefined ? [] : [p.missing]))
  const again = missing.length > 0 ? begin(text, [...new Set(missing)]).created : first
  if (again.ok) return again.study
  const { problems } = again
  const { message, fix } = problems[0]!
  throw new Unreadable(fix ? `${message} · ${fix}` : message, problems)
}

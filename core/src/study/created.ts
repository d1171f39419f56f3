import type { Hint, Problem } from '../language/problems'
import type { Study } from './schema'

/** A study that was begun with a text, or why it could not be. */
export type Created = { ok: true; study: Study; hints: Hint[] } | { ok: false; problems: Problem[] }

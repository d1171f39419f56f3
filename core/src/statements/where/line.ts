import type { Tree } from '../../formula/tree'
import { z } from 'zod'
import type { RealFunction } from '../../evaluate/compile'
import { placeTextSchema } from '../../vocabulary/members'
import { overSpanFields } from '../shared/overSpan'
import type { Question } from '../shared/solving'

/** Where is q′ = 2 on [0, 10]; where does q meet r. */
export const whereLineSchema = z.strictObject({
  kind: z.literal('where'),
  ...overSpanFields,
  order: z.int().min(0).max(3),
  /** A number, an expression in sliders, or the name of another curve. */
  target: placeTextSchema,
  /** How the curve is to stand to the target, where it is not to be equal to it. */
  relation: z.enum(['>', '>=', '<', '<=']).optional(),
})

export type WhereLine = z.infer<typeof whereLineSchema>
export type Relation = NonNullable<WhereLine['relation']>

export interface Asked extends Question {
  ok: true
  /** The number that is asked for; null where it is another curve. */
  level: number | null
  /** What the curve is to be equal to, as a formula. */
  goal: Tree
}

export type Target =
  | { ok: true; level: number | null; other: RealFunction | null; goal: Tree }
  | { ok: false; problem: { message: string; fix?: string } }

import { z } from 'zod'
import { nameSchema } from '../../vocabulary/members'
import { overSpanFields } from '../shared/overSpan'

export const readAs = ['position', 'velocity'] as const
export type ReadAs = (typeof readAs)[number]

/** Signs of q, q′ and q′′ on [0, 10]; motion of s, read as a position, on [0, 10]. */
export const signsLineSchema = z.strictObject({
  kind: z.literal('signs'),
  ...overSpanFields,
  curve: nameSchema,
  order: z.int().min(0).max(1),
  /** Read as what moves: where it rests, turns back, speeds up and slows down. */
  speed: z.boolean(),
  /** What the curve is read as then; s and x are positions unless it is said, others velocities. */
  as: z.enum(readAs).optional(),
})
export type SignsLine = z.infer<typeof signsLineSchema>

/** s and x against t are positions, unless it is said; any other curve is a velocity. */
export const readingOf = ({ curve, order, as }: SignsLine, letter: string): ReadAs =>
  as ?? (order === 0 && letter === 't' && /^[sx](?![A-Za-z])/.test(curve) ? 'position' : 'velocity')

import { z } from 'zod'
import { commonMembers, nameSchema, placeTextSchema, spanSchema } from '../../vocabulary/members'

/** Taylor polynomial of q at t = a, order 3. */
export const taylorLineSchema = z.strictObject({
  kind: z.literal('taylor'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  place: placeTextSchema,
  /** Its order, as typed: a whole number from 0 to 40. */
  degree: placeTextSchema,
  /** Whether those of all lower orders are drawn as well. */
  all: z.boolean().optional(),
  /** Where its error is told. */
  beside: placeTextSchema.optional(),
  /** Where a bound of its error is proven. */
  span: spanSchema.optional(),
  /** What the error is to stay under. */
  under: placeTextSchema.optional(),
})
export type TaylorLine = z.infer<typeof taylorLineSchema>

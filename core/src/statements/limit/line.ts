import { z } from 'zod'
import { commonMembers, nameSchema, placeTextSchema } from '../../vocabulary/members'

/** Limit of q as t → 2 from the left; the place may be ∞ or −∞. */
export const limitLineSchema = z.strictObject({
  kind: z.literal('limit'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  place: placeTextSchema,
  side: z.enum(['both', 'left', 'right']),
})

export type LimitLine = z.infer<typeof limitLineSchema>

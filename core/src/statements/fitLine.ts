import { z } from 'zod'
import { commonMembers, idSchema, nameSchema } from '../vocabulary/members'

export const shapes = [
  'line',
  'quadratic',
  'cubic',
  'quartic',
  'exponential',
  'power',
  'sine',
] as const

export const columns = ['f(x)', 'forward', 'backward', 'central', "f'(x)"] as const

/** Fit a quadratic to the central quotients of q. */
export const fitLineSchema = z.strictObject({
  kind: z.literal('fit'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(3),
  column: z.enum(columns),
  shape: z.enum(shapes),
  /** The table that it was asked for under; else the first one of the curve. */
  table: idSchema.optional(),
})

export type FitLine = z.infer<typeof fitLineSchema>

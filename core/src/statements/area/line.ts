import { z } from 'zod'
import { placeTextSchema } from '../../vocabulary/members'
import { overSpanFields } from '../shared/overSpan'

export const areaRules = ['position', 'trapezoid', 'simpson', 'lower', 'upper', 'random'] as const

export type AreaRule = (typeof areaRules)[number]

/** Area under q over [1, 7] with n = 8 strips, height at the left. */
export const areaLineSchema = z.strictObject({
  kind: z.literal('area'),
  ...overSpanFields,
  order: z.int().min(0).max(3),
  /** How many strips, and where in each the height is read: numbers or sliders. */
  count: placeTextSchema,
  rule: z.enum(areaRules),
  position: placeTextSchema,
  seed: z.int().min(1).max(1_000_000),
  /** Whether the error against the count is shown, and for which error strips are counted. */
  convergence: z.boolean(),
  tolerance: placeTextSchema,
})

export type AreaLine = z.infer<typeof areaLineSchema>

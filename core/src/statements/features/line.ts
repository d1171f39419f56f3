import { z } from 'zod'
import { overSpanFields } from '../shared/overSpan'

export const wanted = [
  'features',
  'zeros',
  'turning points',
  'inflections',
  'critical points',
] as const

export type Wanted = (typeof wanted)[number]

/** Turning points of q on [0, 10]. */
export const featuresLineSchema = z.strictObject({
  kind: z.literal('features'),
  ...overSpanFields,
  order: z.int().min(0).max(2),
  only: z.enum(wanted),
  /** Whether the ends of the span belong to it. */
  ends: z.boolean(),
  /** Whether the points carry their words in the picture. */
  labels: z.boolean(),
})

export type FeaturesLine = z.infer<typeof featuresLineSchema>

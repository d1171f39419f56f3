import { z } from 'zod'
import { placeTextSchema } from '../../vocabulary/members'
import { overSpanFields } from '../shared/overSpan'

/** The theorems, by what they are called; the text is what a sentence begins with. */
export const theorems = {
  meanValue: 'Mean value theorem',
  rolle: 'Rolle’s theorem',
  intermediateValue: 'Intermediate value theorem',
  extremeValue: 'Extreme value theorem',
  fundamental: 'Fundamental theorem',
  firstDerivative: 'First derivative test',
  secondDerivative: 'Second derivative test',
} as const
export type TheoremName = keyof typeof theorems
export const theoremNames = Object.keys(theorems) as TheoremName[]

/** Mean value theorem for f on [0, 4]. */
export const theoremLineSchema = z.strictObject({
  kind: z.literal('theorem'),
  ...overSpanFields,
  order: z.int().min(0).max(1),
  theorem: z.enum(theoremNames),
  /** The value that the intermediate value theorem is asked about. */
  level: placeTextSchema,
})
export type TheoremLine = z.infer<typeof theoremLineSchema>

import { z } from 'zod'

// The page policy forbids code generation, which zod would otherwise probe for.
z.config({ jitless: true })

/** A letter, Latin or Greek, with an optional subscript: q, θ, n₂. */
export const nameSchema = z
  .string()
  .regex(/^[A-Za-zα-ωΑ-Ω](?:[₀-₉]{1,3}|_[A-Za-z])?$/, 'a name is one letter, such as q or n₂')
  .refine((name) => name !== 'e' && name !== 'π', 'e and π are taken')
export const formulaTextSchema = z.string().max(100_000)
/** A value on the axis as typed: 2, a, a + h. */
export const placeTextSchema = z.string().min(1).max(400)
export const unitSchema = z.string().trim().max(30)
export const idSchema = z.string().min(1).max(40)
const finite = z.number().finite()

export const sliderSchema = z
  .object({
    name: nameSchema,
    value: finite,
    from: finite,
    to: finite,
    step: finite.positive(),
    /** Set where the slider stands for a place and carries a flag on the ruler. */
    place: z.boolean(),
  })
  .refine((s) => s.from < s.to, { message: 'from must lie below to', path: ['from'] })
export type Slider = z.infer<typeof sliderSchema>

export const variableSchema = z.object({
  letter: nameSchema,
  /** What it stands for, such as time. */
  name: z.string().trim().max(40),
  unit: unitSchema,
})
export type Variable = z.infer<typeof variableSchema>

export const spanSchema = z.object({ from: placeTextSchema, to: placeTextSchema })
export type SpanText = z.infer<typeof spanSchema>

export const laneSchema = z.object({
  id: idSchema,
  curve: nameSchema,
  order: z.int().min(0).max(3),
  /** The vertical frame someone has set; null while it follows the curve. */
  frame: z.tuple([finite, finite]).nullable(),
})
export type Lane = z.infer<typeof laneSchema>

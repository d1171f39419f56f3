import { z } from 'zod'
import { commonMembers, lineColours, nameSchema, placeTextSchema } from '../../vocabulary/members'

export const mostMembers = 2000

/** Tangents to q for t from −3 to 3, 120 of them; q for k from 0 to 3, 16 of them. */
export const familyLineSchema = z.strictObject({
  kind: z.literal('family'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  what: z.enum(['tangents', 'normals', 'secants', 'chords', 'members']),
  /** What runs: the letter of the axis, or of a slider for members. */
  letter: nameSchema,
  from: placeTextSchema,
  to: placeTextSchema,
  count: placeTextSchema,
  /** How wide secants and chords are. */
  width: placeTextSchema.optional(),
  /** How long each line is along the axis; whole where it is not said. */
  reach: placeTextSchema.optional(),
  /** Between these it is coloured, from the first member to the last. */
  colours: z.array(z.enum(lineColours)).min(1).max(3).optional(),
  /** In place of those: hue from 0 to 360 and lightness from 0 to 100, as expressions of the letter. */
  hue: placeTextSchema.optional(),
  lightness: placeTextSchema.optional(),
  /** From 0 to 1. */
  opacity: placeTextSchema.optional(),
  envelope: z.boolean().optional(),
})
export type FamilyLine = z.infer<typeof familyLineSchema>

export const usualColours: NonNullable<FamilyLine['colours']> = ['kelp', 'rust']

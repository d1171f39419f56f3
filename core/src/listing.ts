import { z } from 'zod'
import { isStorable } from './vocabulary/storable'

/** What the list of studies is read with: nothing here knows what a study is made of. */

/** In this header page and server tell each other the format of studies they write. */
export const formatHeader = 'x-yperkine-format'

/** Versions and counts are what the database's integers hold. */
export const mostVersion = 2 ** 31 - 1
export const versionSchema = z.int().min(1).max(mostVersion)
export const idSchema = z.uuid()

/** A study as it opens, drawn small: its first curve, all that is drawn, and the height of the axis. */
export const pictureSchema = z.object({
  path: z.string(),
  axis: z.number().nullable(),
  width: z.number(),
  height: z.number(),
  /** What is drawn, in the order of drawing; what each ink is, the page knows. */
  items: z
    .array(
      z.object({
        d: z.string(),
        ink: z.string(),
        width: z.number(),
        fill: z.string().optional(),
        order: z.number().optional(),
      }),
    )
    .default([]),
})
export type Picture = z.infer<typeof pictureSchema>

export const studySummarySchema = z.object({
  id: idSchema,
  version: versionSchema,
  title: z.string(),
  about: z.string(),
  topics: z.array(z.string()),
  /** It came with the program. */
  example: z.boolean(),
  updatedAt: z.string(),
  /** The format it is kept in; one that is newer than the reader's cannot be opened there. */
  format: z.number(),
  /** null until it has been drawn. */
  thumbnail: pictureSchema.nullable(),
  /** Whether the drawing is of an earlier version, and the next one is under way. */
  drawing: z.boolean(),
})
export type StudySummary = z.infer<typeof studySummarySchema>

export const mostListed = 100
/** How a list is asked for: a page of it, by words in the title, by topic. */
export const listQuerySchema = z.object({
  /** Where the page before has ended. */
  cursor: z.string().min(1).max(200).optional(),
  search: z.string().max(200).refine(isStorable).optional(),
  topic: z.string().max(40).refine(isStorable).optional(),
  /** Only examples, or only one's own studies; both where nothing is said. */
  example: z.enum(['true', 'false']).optional(),
  limit: z.coerce.number().int().min(1).max(mostListed).default(mostListed),
})
export type ListQuery = z.infer<typeof listQuerySchema>

export const listAnswerSchema = z.object({
  studies: z.array(studySummarySchema),
  /** Where the next page begins, or null where this is the last. */
  next: z.string().nullable(),
})
export type ListAnswer = z.infer<typeof listAnswerSchema>

export const createdAnswerSchema = z.object({
  id: idSchema,
  version: versionSchema,
  updatedAt: z.string(),
})
export const savedAnswerSchema = createdAnswerSchema.omit({ id: true })
export type SavedAnswer = z.infer<typeof savedAnswerSchema>

/** The origins whose pages may show a study in a frame. */
export const framingAnswerSchema = z.object({ origins: z.array(z.string()) })

export const errorAnswerSchema = z.object({
  error: z.object({ code: z.string(), message: z.string(), details: z.unknown().optional() }),
})

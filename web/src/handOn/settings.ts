import { pictureLooks } from '@yperkine/core'
import { z } from 'zod'

export const formats = ['svg', 'png', 'pdf'] as const
export type Format = (typeof formats)[number]

/** How pictures are handed on, as it was chosen last in this browser. */
const settingsSchema = z.object({
  unit: z.enum(['px', 'cm']).default('px'),
  /** In pixels: 96 to an inch. The height is that of the picture alone, and follows the screen's shape where it is null. */
  width: z.number().min(120).max(6000).default(960),
  height: z.number().min(80).max(6000).nullable().default(null),
  scale: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)]).default(2),
  /** null as it is shown. */
  look: z.enum(pictureLooks).nullable().default(null),
  ground: z.boolean().default(true),
  ruler: z.boolean().default(true),
  title: z.boolean().default(false),
  notes: z.boolean().default(true),
  working: z.boolean().default(false),
  words: z.enum(['outlines', 'text']).default('outlines'),
})
export type PictureSettings = z.infer<typeof settingsSchema>

const key = 'yperkine.picture'
export const usualSettings: PictureSettings = settingsSchema.parse({})

/** What cannot be read is as if nothing had been chosen. */
export function readSettings(): PictureSettings {
  try {
    const read = settingsSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? '{}'))
    return read.success ? read.data : usualSettings
  } catch {
    return usualSettings
  }
}

/** A browser that keeps nothing has the usual settings the next time. */
export function writeSettings(settings: PictureSettings) {
  try {
    localStorage.setItem(key, JSON.stringify(settings))
  } catch {
    return
  }
}

import type { Face } from '@yperkine/core'
import fontkit, { type Font } from '@pdf-lib/fontkit'
import sans400 from '@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff?url'
import sans400Ext from '@fontsource/source-sans-3/files/source-sans-3-latin-ext-400-normal.woff?url'
import sans400Greek from '@fontsource/source-sans-3/files/source-sans-3-greek-400-normal.woff?url'
import sans600 from '@fontsource/source-sans-3/files/source-sans-3-latin-600-normal.woff?url'
import sans600Ext from '@fontsource/source-sans-3/files/source-sans-3-latin-ext-600-normal.woff?url'
import sans600Greek from '@fontsource/source-sans-3/files/source-sans-3-greek-600-normal.woff?url'
import serif400 from '@fontsource/source-serif-4/files/source-serif-4-latin-400-normal.woff?url'
import serif400Greek from '@fontsource/source-serif-4/files/source-serif-4-greek-400-normal.woff?url'
import serif600 from '@fontsource/source-serif-4/files/source-serif-4-latin-600-normal.woff?url'
import serif600Greek from '@fontsource/source-serif-4/files/source-serif-4-greek-600-normal.woff?url'
import serifItalic400 from '@fontsource/source-serif-4/files/source-serif-4-latin-400-italic.woff?url'
import serifItalic400Greek from '@fontsource/source-serif-4/files/source-serif-4-greek-400-italic.woff?url'
import serifItalic600 from '@fontsource/source-serif-4/files/source-serif-4-latin-600-italic.woff?url'
import serifItalic600Greek from '@fontsource/source-serif-4/files/source-serif-4-greek-600-italic.woff?url'

/** The static cuts of each face; a cut has some scripts and not others, and the first that has a letter sets it. */
const cuts: Readonly<Record<string, readonly string[]>> = {
  'sans 400': [sans400, sans400Ext, sans400Greek],
  'sans 600': [sans600, sans600Ext, sans600Greek],
  'serif 400': [serif400, serif400Greek],
  'serif 600': [serif600, serif600Greek],
  'serif 400 italic': [serifItalic400, serifItalic400Greek],
  'serif 600 italic': [serifItalic600, serifItalic600Greek],
}

/** A cut with its bytes, as a PDF takes them in. */
export interface Cut {
  bytes: Uint8Array
  font: Font
}
export type Fonts = (face: Face) => readonly Cut[]

const nameOf = ({ family, weight, italic }: Face) =>
  `${family} ${weight}${italic && family === 'serif' ? ' italic' : ''}`

async function cutAt(url: string): Promise<Cut> {
  const response = await fetch(url).catch(() => null)
  if (!response?.ok) throw new Error('its fonts cannot be fetched at the moment')
  const bytes = new Uint8Array(await response.arrayBuffer())
  return { bytes, font: fontkit.create(bytes) }
}

let loading: Promise<Fonts> | null = null

/** All faces, fetched once; after a failure they are asked for anew. */
export const loadFonts = (): Promise<Fonts> =>
  (loading ??= fetchAll().catch((error: unknown) => {
    loading = null
    throw error
  }))

async function fetchAll(): Promise<Fonts> {
  const all = await Promise.all(
    Object.entries(cuts).map(
      async ([name, urls]) => [name, await Promise.all(urls.map(cutAt))] as const,
    ),
  )
  const faces = new Map(all)
  return (face) => faces.get(nameOf(face))!
}

/** A text in pieces, each with the first cut that has its letters; null where none has. */
export function runsOf(text: string, cutsOf: readonly Cut[]): { text: string; cut: Cut | null }[] {
  const runs: { text: string; cut: Cut | null }[] = []
  for (const character of text) {
    const code = character.codePointAt(0)!
    const last = runs.at(-1)
    const cut =
      character === ' ' && last?.cut
        ? last.cut
        : (cutsOf.find(({ font }) => font.hasGlyphForCodePoint(code)) ?? null)
    if (last && last.cut === cut) last.text += character
    else runs.push({ text: character, cut })
  }
  return runs
}

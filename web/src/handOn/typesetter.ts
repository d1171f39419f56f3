import type { Face, Outline, Typesetter } from '@yperkine/core'
import svgpath from 'svgpath'
import { type Cut, type Fonts, loadFonts, runsOf } from './fonts'

/** Sets words with the fonts of the project and mathematics as outlines; both are fetched when first asked for. */
export async function loadTypesetter(): Promise<Typesetter & { fonts: Fonts }> {
  const [fonts, { setMaths }] = await Promise.all([loadFonts(), import('./maths')])
  return {
    fonts,
    maths: setMaths,
    words: remembered((text: string, face: Face, size: number): Outline => {
      let [d, x] = ['', 0]
      const rest: { text: string; x: number }[] = []
      for (const run of runsOf(text, fonts(face))) {
        if (run.cut) {
          const set = outlineOf(run.text, run.cut, size, x)
          d += set.d
          x = set.end
          continue
        }
        for (const character of run.text) {
          // Signs of mathematics that a text font lacks.
          const sign = isSign(character) ? setMaths(character, size) : null
          if (sign && sign.d !== '') d += svgpath(sign.d).translate(x, 0).round(2).toString()
          else rest.push({ text: character, x })
          x += sign && sign.d !== '' ? sign.width : size
        }
      }
      return rest.length > 0 ? { d, width: x, rest } : { d, width: x }
    }),
  }
}

/** So many outlines are kept; a sheet measures each of its words before it draws it, and numbers recur. */
const mostKept = 5000

/** A function of texts and numbers that gives the same for the same, kept so that it is worked out once. */
function remembered<A extends readonly unknown[], R>(work: (...given: A) => R) {
  const known = new Map<string, R>()
  return (...given: A): R => {
    const key = JSON.stringify(given)
    const kept = known.get(key)
    if (kept !== undefined) return kept
    if (known.size >= mostKept) known.clear()
    const made = work(...given)
    known.set(key, made)
    return made
  }
}

/** ≈, ≤, ∞, ∫, √ and their like. */
const isSign = (character: string) => /[\u2190-\u22ff]/.test(character)

function outlineOf(text: string, { font }: Cut, size: number, start: number) {
  const by = size / font.unitsPerEm
  const { glyphs, positions } = font.layout(text)
  let [d, x] = ['', start]
  glyphs.forEach((glyph, i) => {
    const { xAdvance, xOffset, yOffset } = positions[i]!
    const path = glyph.path.toSVG()
    if (path !== '') {
      d += svgpath(path)
        .scale(by, -by)
        .translate(x + xOffset * by, -yOffset * by)
        .round(2)
        .toString()
    }
    x += xAdvance * by
  })
  return { d, end: x }
}

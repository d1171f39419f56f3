import type { Drawing, Drawn, Face, Hatch, Typesetter } from './drawing'
import { setNote } from './notes'

export type WordsAs = 'outlines' | 'text'

/** Whether XML may hold a character: no controls but tab and line ends, no halves of pairs. */
function isInXml(character: string): boolean {
  const code = character.codePointAt(0)!
  if (code < 0x20) return code === 0x9 || code === 0xa || code === 0xd
  return !(code >= 0xd800 && code <= 0xdfff) && code !== 0xfffe && code !== 0xffff
}
/** A text as XML: what it may not hold is left out, what means something there is written out. */
const xml = (text: string) =>
  [...text]
    .filter(isInXml)
    .join('')
    .replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

const round = (v: number) => Number(v.toFixed(2))

/**
 * A drawing as an SVG document. Words are outlines, so that it looks the same wherever it is opened, or
 * text for further editing; mathematics is outlines always. `unit` px or cm is how its size is told.
 */
export function svgOf(
  drawing: Drawing,
  setter: Typesetter,
  { words = 'outlines', centimetres }: { words?: WordsAs; centimetres?: number } = {},
): string {
  const { width, height, ground, title, description, items } = drawing
  const defs = new Map<string, string>()
  const body = items.map((item) => element(item, setter, words, defs)).join('')
  const size =
    centimetres === undefined
      ? `width="${width}" height="${height}"`
      : `width="${centimetres}cm" height="${round((centimetres * height) / width)}cm"`
  return [
    '<?xml version="1.0" encoding="UTF-8"?>\n',
    `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${width} ${height}" role="img" aria-labelledby="title description">`,
    `<title id="title">${xml(title)}</title><desc id="description">${xml(description)}</desc>`,
    defs.size > 0 ? `<defs>${[...defs.values()].join('')}</defs>` : '',
    ground === null ? '' : `<rect width="${width}" height="${height}" fill="${ground}"/>`,
    body,
    '</svg>\n',
  ].join('')
}

function element(
  item: Drawn,
  setter: Typesetter,
  words: WordsAs,
  defs: Map<string, string>,
): string {
  switch (item.kind) {
    case 'path': {
      const { d, stroke, width, dashes, round: isRound, fill, opacity, transform } = item
      return [
        `<path d="${xml(d)}"`,
        ` fill="${fill === null ? 'none' : typeof fill === 'string' ? fill : hatched(fill, defs)}"`,
        stroke === null
          ? ''
          : ` stroke="${stroke}" stroke-width="${round(width)}" stroke-linejoin="round"`,
        stroke !== null && isRound ? ' stroke-linecap="round"' : '',
        stroke !== null && dashes.length > 0 ? ` stroke-dasharray="${dashes.join(' ')}"` : '',
        opacity < 1 ? ` opacity="${opacity}"` : '',
        transform ? ` transform="${xml(transform)}"` : '',
        '/>',
      ].join('')
    }
    case 'words': {
      const { x, y, text, size, face, anchor, colour, halo, opacity } = item
      const dim = opacity < 1 ? ` opacity="${opacity}"` : ''
      const around =
        halo === null
          ? ''
          : ` stroke="${halo}" stroke-width="${round(size * 0.3)}" stroke-linejoin="round" paint-order="stroke"`
      if (words === 'text') {
        return `<text x="${round(x)}" y="${round(y)}" ${faceOf(face)} font-size="${round(size)}" text-anchor="${anchor}" fill="${colour}"${around}${dim}>${xml(text)}</text>`
      }
      const set = setter.words(text, face, size)
      const left = x - (anchor === 'middle' ? set.width / 2 : anchor === 'end' ? set.width : 0)
      const at = `transform="translate(${round(left)} ${round(y)})"`
      const under = halo === null ? '' : `<path d="${set.d}" ${at} fill="none"${around}/>`
      const rest = (set.rest ?? []).map(
        (one) =>
          `<text x="${round(left + one.x)}" y="${round(y)}" ${faceOf(face)} font-size="${round(size)}" fill="${colour}"${dim}>${xml(one.text)}</text>`,
      )
      const drawn = set.d === '' ? '' : `${under}<path d="${set.d}" ${at} fill="${colour}"${dim}/>`
      return drawn + rest.join('')
    }
    case 'note':
      return setNote(item, setter)
        .map((one) => element(one, setter, words, defs))
        .join('')
    case 'group': {
      const { x, y, clip, scale, items } = item
      const larger = scale === undefined ? '' : ` scale(${Number(scale.toFixed(5))})`
      const inside = items.map((one) => element(one, setter, words, defs)).join('')
      const cut = clip ? ` clip-path="url(#${clipped(clip, defs)})"` : ''
      return `<g transform="translate(${round(x)} ${round(y)})${larger}"><g${cut}>${inside}</g></g>`
    }
  }
}

const faceOf = ({ family, weight, italic }: Face) =>
  `font-family="${family === 'serif' ? 'Source Serif 4, Georgia, serif' : 'Source Sans 3, Arial, sans-serif'}" font-weight="${weight}"${italic ? ' font-style="italic"' : ''}`

function hatched({ hatch, colour }: Hatch, defs: Map<string, string>): string {
  const id = `hatch-${hatch}`
  const turn = hatch === 'up' ? 45 : -45
  defs.set(
    id,
    `<pattern id="${id}" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(${turn})"><path d="M0 0V6" stroke="${colour}" stroke-width="1.6"/></pattern>`,
  )
  return `url(#${id})`
}

function clipped({ width, height }: { width: number; height: number }, defs: Map<string, string>) {
  const id = `clip-${round(width)}-${round(height)}`.replace(/\./g, '_')
  defs.set(
    id,
    `<clipPath id="${id}"><rect width="${round(width)}" height="${round(height)}"/></clipPath>`,
  )
  return id
}

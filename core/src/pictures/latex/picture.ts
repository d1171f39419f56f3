import svgpath from 'svgpath'
import { textWidth } from '../../scene/textWidth'
import type { Drawing, Drawn, Face, Hatch, NotePiece } from '../drawing'
import { latexMaths } from './maths'
import { latexName, latexText, type LatexText } from './words'

/** A picture as the source of a LaTeX picture, with the characters in it that have no sign there. */
export interface LatexSource {
  source: string
  missing: readonly string[]
}

/** 96 pixels are an inch, and so are 72 big points. */
const pointsOfPixel = 0.75
const round = (v: number) => Number(v.toFixed(2)) + 0
const points = (pixels: number) => `${round(pixels * pointsOfPixel)}bp`
/** The letters of papers are wider than those of the page, strong ones most, and have the same room. */
const typeShare = { 400: 0.94, 600: 0.87 } as const
/** Further out than this nothing is seen, and TeX holds no larger lengths. */
const farthest = 6000
/** So many places of a path stand on a line of the source. */
const onLine = 6

/**
 * A drawing as a tikzpicture: shapes in pixels from the top left corner (a pixel is 3/4 bp), words as
 * nodes in the document's own fonts, mathematics as mathematics. Words of people mean nothing but
 * themselves. Colours are defined inside the picture. It wants `tikz` with its library `patterns`, and
 * for notes with mathematics `amsmath` and `amssymb`.
 */
export function latexPicture(drawing: Drawing): LatexSource {
  const writer = new Writer()
  const { width, height, ground, items } = drawing
  writer.line(`\\useasboundingbox (0,0) rectangle (${round(width)},${round(height)});`)
  if (ground !== null) {
    writer.line(
      `\\fill[${writer.colour(ground)}] (0,0) rectangle (${round(width)},${round(height)});`,
    )
  }
  for (const item of items) writer.item(item, 1)
  return {
    source: [
      `\\begin{tikzpicture}[x=${pointsOfPixel}bp,y=-${pointsOfPixel}bp]`,
      ...writer.colours(),
      ...writer.lines,
      '\\end{tikzpicture}',
    ].join('\n'),
    missing: writer.missing,
  }
}

class Writer {
  readonly lines: string[] = []
  readonly missing: string[] = []
  private readonly known = new Map<string, string>()

  line(text: string) {
    this.lines.push(text)
  }

  /** The name of a colour in this picture. */
  colour(hex: string): string {
    let name = this.known.get(hex)
    if (name === undefined) {
      // Letters alone: a figure would be read as a share of a mixture.
      name = `ink${letters(this.known.size)}`
      this.known.set(hex, name)
    }
    return name
  }

  colours(): string[] {
    return [...this.known].map(
      ([hex, name]) => `\\definecolor{${name}}{HTML}{${hex.slice(1).toUpperCase()}}`,
    )
  }

  item(item: Drawn, scale: number) {
    switch (item.kind) {
      case 'path':
        return this.path(item, scale)
      case 'words':
        return this.words(item, scale)
      case 'note':
        return this.note(item, scale)
      case 'group': {
        const { x, y, clip, items } = item
        const larger = item.scale === undefined ? '' : `,scale=${Number(item.scale.toFixed(5))}`
        this.line(`\\begin{scope}[shift={(${round(x)},${round(y)})}${larger}]`)
        if (clip) this.line(`\\clip (0,0) rectangle (${round(clip.width)},${round(clip.height)});`)
        for (const one of items) this.item(one, scale * (item.scale ?? 1))
        this.line('\\end{scope}')
      }
    }
  }

  private path(
    { d, stroke, width, dashes, round: isRound, fill, opacity, transform }: PathItem,
    scale: number,
  ) {
    const places = placesOf(d, transform)
    if (places === '' || (stroke === null && fill === null)) return
    const options = [
      ...(stroke === null
        ? []
        : [`draw=${this.colour(stroke)}`, `line width=${points(width * scale)}`]),
      ...(stroke !== null && isRound ? ['line cap=round', 'line join=round'] : []),
      ...(stroke !== null && dashes.length > 0 ? [dashPattern(dashes, scale)] : []),
      ...(fill === null ? [] : this.fill(fill)),
      ...(opacity < 1 ? [`opacity=${Number(opacity.toFixed(3))}`] : []),
    ]
    this.line(`\\path[${options.join(',')}] ${places};`)
  }

  private fill(fill: string | Hatch): string[] {
    if (typeof fill === 'string') return [`fill=${this.colour(fill)}`]
    const slant = fill.hatch === 'up' ? 'north east' : 'north west'
    return [`pattern=${slant} lines`, `pattern color=${this.colour(fill.colour)}`]
  }

  private words(
    { x, y, text, size, face, anchor, colour, halo, opacity }: WordsItem,
    scale: number,
  ) {
    const set = this.noted(face.italic ? latexName(text) : latexText(text))
    if (set.trim() === '') return
    const where = { start: 'base west', middle: 'base', end: 'base east' }[anchor]
    const options = [
      `anchor=${where}`,
      'inner sep=0pt',
      'outer sep=0pt',
      `text=${this.colour(colour)}`,
      fontOf(face, size * scale),
      ...(halo === null
        ? []
        : [`fill=${this.colour(halo)}`, 'fill opacity=0.75', 'text opacity=1']),
      ...(opacity < 1 ? [`opacity=${Number(opacity.toFixed(3))}`] : []),
    ]
    this.line(`\\node[${options.join(',')}] at (${round(x)},${round(y)}) {${set}};`)
  }

  private note(item: NoteItem, scale: number) {
    const { x, y, width, right, size, weight, colour, ground } = item
    const rows = item.lines.flatMap((line) => broken(line, width, size, weight))
    const set = rows.map((row) => `{}${row.map((piece) => this.noted(piece)).join('')}`)
    const options = [
      `anchor=north ${right ? 'east' : 'west'}`,
      `align=left`,
      `inner xsep=${points(12 * scale)}`,
      `inner ysep=${points(8 * scale)}`,
      'outer sep=0pt',
      `text=${this.colour(colour)}`,
      fontOf({ family: 'serif', weight, italic: false }, size * scale, 1.4),
      ...(ground === null
        ? []
        : [`fill=${this.colour(ground)}`, 'fill opacity=0.9', 'text opacity=1']),
    ]
    const at = `(${round(right ? x + width : x)},${round(y)})`
    this.line(`\\node[${options.join(',')}] at ${at} {${set.join('\\\\\n')}};`)
  }

  /** The source of a text, with what is missing of it noted. */
  private noted({ source, missing }: LatexText): string {
    this.missing.push(...missing)
    return source
  }
}

type PathItem = Drawn & { kind: 'path' }
type WordsItem = Drawn & { kind: 'words' }
type NoteItem = Drawn & { kind: 'note' }

/** a, b, … z, aa, ab, … */
const letters = (n: number): string =>
  (n >= 26 ? letters(Math.floor(n / 26) - 1) : '') + String.fromCharCode(97 + (n % 26))

function dashPattern(dashes: readonly number[], scale: number): string {
  const lengths = dashes.length % 2 === 0 ? dashes : [...dashes, ...dashes]
  const parts = lengths.map((l, i) => `${i % 2 === 0 ? 'on' : 'off'} ${points(l * scale)}`)
  return `dash pattern=${parts.join(' ')}`
}

function fontOf({ family, weight }: Face, size: number, leading = 1.2): string {
  const set = size * pointsOfPixel * typeShare[weight]
  const parts = [
    `\\fontsize{${round(set)}}{${round(set * leading)}}\\selectfont`,
    ...(family === 'sans' ? ['\\sffamily'] : []),
    ...(weight === 600 ? ['\\bfseries'] : []),
  ]
  return `font=${parts.join('')}`
}

/** A path in the notation of SVG as one of places: lines and curves alone, all of them absolute. */
function placesOf(d: string, transform: string | undefined): string {
  const parts: string[] = []
  const held = (v: number) => round(Math.max(-farthest, Math.min(farthest, v)))
  const place = (x: number, y: number) => `(${held(x)},${held(y)})`
  const curve = (a: number[], b: number[], c: number[]) =>
    `.. controls ${place(a[0]!, a[1]!)} and ${place(b[0]!, b[1]!)} .. ${place(c[0]!, c[1]!)}`
  const path = transform === undefined ? svgpath(d) : svgpath(d).transform(transform)
  path
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _index, x, y) => {
      const [name, ...n] = segment as [string, ...number[]]
      switch (name) {
        case 'M':
          return void parts.push(place(n[0]!, n[1]!))
        case 'L':
          return void parts.push(`-- ${place(n[0]!, n[1]!)}`)
        case 'H':
          return void parts.push(`-- ${place(n[0]!, y)}`)
        case 'V':
          return void parts.push(`-- ${place(x, n[0]!)}`)
        case 'C':
          return void parts.push(curve([n[0]!, n[1]!], [n[2]!, n[3]!], [n[4]!, n[5]!]))
        case 'Q': {
          // A curve of degree 2 as one of degree 3: two thirds of the way to its one handle.
          const toward = (a: number, b: number) => a + (2 / 3) * (b - a)
          const [hx, hy, ex, ey] = n as [number, number, number, number]
          return void parts.push(
            curve([toward(x, hx), toward(y, hy)], [toward(ex, hx), toward(ey, hy)], [ex, ey]),
          )
        }
        case 'Z':
          return void parts.push('-- cycle')
      }
    })
  return parts
    .map((part, i) => (i > 0 && i % onLine === 0 ? `\n${part}` : i > 0 ? ` ${part}` : part))
    .join('')
}

/** The pieces of a line of a note as rows no wider than it: words are broken at spaces, formulas are whole. */
function broken(
  line: readonly NotePiece[],
  width: number,
  size: number,
  weight: 400 | 600,
): LatexText[][] {
  const room = width - 24 + size
  const rows: LatexText[][] = [[]]
  let used = 0
  const put = (set: LatexText, wide: number) => {
    if (used + wide > room && rows.at(-1)!.length > 0) {
      rows.push([])
      used = 0
    }
    rows.at(-1)!.push(set)
    used += wide
  }
  for (const piece of line) {
    if ('latex' in piece) {
      const set = latexMaths(piece.latex)
      put(set, mathsWidth(piece.latex, size))
      continue
    }
    for (const word of piece.text.match(/\S+\s*|\s+/g) ?? []) {
      const { source, missing } = latexText(word)
      const set = piece.strong && weight !== 600 ? `\\textbf{${source}}` : source
      put({ source: set, missing }, textWidth(word, size))
    }
  }
  return rows
}

/** About how wide a formula is: what is read of it, without the names of its commands. */
const mathsWidth = (latex: string, size: number) =>
  textWidth(
    latex
      .replace(/\\(?:[td]?frac|left|right|text)/g, '')
      .replace(/\\[A-Za-z]+/g, 'x')
      .replace(/[{}^_\s]/g, ''),
    size,
  )

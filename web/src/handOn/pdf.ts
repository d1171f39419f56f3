import type { Drawing, Drawn, Typesetter } from '@yperkine/core'
import { setNote } from '@yperkine/core'
import fontkit from '@pdf-lib/fontkit'
import {
  appendBezierCurve,
  beginText,
  clip,
  closePath,
  concatTransformationMatrix,
  endPath,
  endText,
  fill,
  fillAndStroke,
  LineCapStyle,
  LineJoinStyle,
  lineTo,
  moveTo,
  PDFDocument,
  type PDFFont,
  type PDFName,
  type PDFOperator,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setDashPattern,
  setFillingColor,
  setFontAndSize,
  setGraphicsState,
  setLineCap,
  setLineJoin,
  setLineWidth,
  setStrokingColor,
  setTextMatrix,
  showText,
  stroke,
} from 'pdf-lib'
import svgpath from 'svgpath'
import { type Cut, type Fonts, runsOf } from './fonts'

type Setter = Typesetter & { fonts: Fonts }

/** Points to a pixel of a screen: 96 pixels and 72 points are an inch. */
export const pointsOfPixel = 72 / 96

/** A page of a document: a drawing from some place on, so many points to a pixel. */
export interface PdfPart {
  drawing: Drawing
  /** From the left and from the top of the page, in points. */
  x: number
  y: number
  scale: number
}
export interface PdfSheet {
  /** In points. */
  width: number
  height: number
  parts: readonly PdfPart[]
}

/** Drawings as a PDF of vectors: words in their embedded fonts, so that they can be searched and copied. */
export async function pdfOf(
  title: string,
  sheets: readonly PdfSheet[],
  setter: Setter,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  pdf.registerFontkit(fontkit)
  pdf.setTitle(title, { showInWindowTitleBar: true })
  pdf.setCreator('Yperkine')
  pdf.setProducer('Yperkine')
  const fonts = new Map<Cut, PDFFont>()
  for (const cut of cutsIn(sheets, setter)) {
    fonts.set(cut, await pdf.embedFont(cut.bytes, { subset: true }))
  }
  for (const { width, height, parts } of sheets) {
    const page = pdf.addPage([width, height])
    for (const { drawing, x, y, scale } of parts) {
      const pen = penOn(page, setter, fonts)
      pen.push(pushGraphicsState())
      // From pixels downwards to points upwards.
      pen.push(concatTransformationMatrix(scale, 0, 0, -scale, x, height - y))
      if (drawing.ground !== null) {
        const whole = `M0 0H${drawing.width}V${drawing.height}H0Z`
        pen.draw(plain(whole, drawing.ground))
      }
      for (const item of drawing.items) pen.draw(item)
      pen.push(popGraphicsState())
    }
  }
  return pdf.save()
}

const plain = (d: string, colour: string): Drawn => ({
  ...{ kind: 'path', d, stroke: null, width: 0, dashes: [], round: false, opacity: 1 },
  fill: colour,
})

/** The cuts that the words of a document need. */
function cutsIn(sheets: readonly PdfSheet[], setter: Setter): Set<Cut> {
  const cuts = new Set<Cut>()
  const look = (item: Drawn): void => {
    if (item.kind === 'group') item.items.forEach(look)
    else if (item.kind === 'note') setNote(item, setter).forEach(look)
    else if (item.kind === 'words') {
      for (const { cut } of runsOf(item.text, setter.fonts(item.face))) if (cut) cuts.add(cut)
    }
  }
  for (const { parts } of sheets) for (const { drawing } of parts) drawing.items.forEach(look)
  return cuts
}

const colourOf = (hex: string) => {
  const part = (i: number) => parseInt(hex.slice(i, i + 2), 16) / 255
  return rgb(part(1), part(3), part(5))
}

/** Writes drawn things to a page. */
function penOn(page: PDFPage, setter: Setter, fonts: ReadonlyMap<Cut, PDFFont>) {
  const push = (...operators: PDFOperator[]) => page.pushOperators(...operators)
  const dim = (opacity: number) => {
    if (opacity >= 1) return
    const state = page.doc.context.obj({ Type: 'ExtGState', ca: opacity, CA: opacity })
    push(setGraphicsState(page.node.newExtGState('Dim', state)))
  }
  const path = (item: Drawn & { kind: 'path' }) => {
    const { d, width, dashes, round, opacity, transform } = item
    push(pushGraphicsState())
    dim(opacity)
    const made = pathOperators(d, transform)
    if (item.fill !== null && typeof item.fill !== 'string') {
      hatch(item.fill, d, transform)
    }
    const filled = typeof item.fill === 'string' ? item.fill : null
    if (filled) push(setFillingColor(colourOf(filled)))
    if (item.stroke !== null) {
      push(setStrokingColor(colourOf(item.stroke)), setLineWidth(width))
      push(setLineJoin(LineJoinStyle.Round))
      push(setLineCap(round ? LineCapStyle.Round : LineCapStyle.Butt))
      if (dashes.length > 0) push(setDashPattern([...dashes], 0))
    }
    if (filled || item.stroke !== null) {
      push(...made, filled && item.stroke !== null ? fillAndStroke() : filled ? fill() : stroke())
    }
    push(popGraphicsState())
  }
  const hatch = (
    { hatch: way, colour }: { hatch: 'up' | 'down'; colour: string },
    d: string,
    transform: string | undefined,
  ) => {
    const box = boxOf(d, transform)
    if (!box) return
    const [left, top, right, bottom] = box
    const tall = bottom - top
    push(pushGraphicsState(), ...pathOperators(d, transform), clip(), endPath())
    push(setStrokingColor(colourOf(colour)), setLineWidth(1.6), setLineCap(LineCapStyle.Butt))
    // Six pixels apart across the lines, so more along the edge.
    const apart = 6 * Math.SQRT2
    for (let x = left - tall; x < right + tall; x += apart) {
      const [from, to] = way === 'up' ? [x + tall, x] : [x, x + tall]
      push(moveTo(from, top), lineTo(to, bottom))
    }
    push(stroke(), popGraphicsState())
  }
  const words = (item: Drawn & { kind: 'words' }) => {
    const { text, size, face, anchor, colour, halo, opacity, x, y } = item
    const set = setter.words(text, face, size)
    const left = x - (anchor === 'middle' ? set.width / 2 : anchor === 'end' ? set.width : 0)
    if (halo !== null && set.d !== '') {
      const around = { kind: 'path', d: set.d, width: size * 0.3, dashes: [], round: true } as const
      const transform = `translate(${left} ${y})`
      path({ ...around, stroke: halo, fill: null, opacity: 1, transform })
    }
    push(pushGraphicsState())
    dim(opacity)
    push(setFillingColor(colourOf(colour)))
    let at = left
    for (const run of runsOf(text, setter.fonts(face))) {
      const { width } = setter.words(run.text, face, size)
      const font = run.cut && fonts.get(run.cut)
      if (font) {
        push(beginText(), setFontAndSize(nameOf(page, font), size))
        push(setTextMatrix(1, 0, 0, -1, at, y), showText(font.encodeText(run.text)), endText())
      } else {
        // Signs that no font has are outlines; what nobody can draw is a box.
        const { d, rest } = setter.words(run.text, face, size)
        const shape = rest
          ? rest
              .map(
                (one) => `M${one.x + 1} ${-size * 0.7}h${size * 0.7}v${size * 0.7}h${-size * 0.7}Z`,
              )
              .join('')
          : d
        const drawn = { kind: 'path', d: shape, dashes: [], round: false, opacity: 1 } as const
        const transform = `translate(${at} ${y})`
        path({
          ...drawn,
          width: 1,
          stroke: rest ? colour : null,
          fill: rest ? null : colour,
          transform,
        })
      }
      at += width
    }
    push(popGraphicsState())
  }
  const draw = (item: Drawn): void => {
    switch (item.kind) {
      case 'path':
        path(item)
        return
      case 'words':
        words(item)
        return
      case 'note':
        setNote(item, setter).forEach(draw)
        return
      case 'group': {
        const by = item.scale ?? 1
        push(pushGraphicsState(), concatTransformationMatrix(by, 0, 0, by, item.x, item.y))
        if (item.clip) {
          const { width, height } = item.clip
          push(...pathOperators(`M0 0H${width}V${height}H0Z`), clip(), endPath())
        }
        item.items.forEach(draw)
        push(popGraphicsState())
      }
    }
  }
  return { push, draw }
}

const names = new WeakMap<PDFPage, Map<PDFFont, PDFName>>()
/** What a font is called on a page. */
function nameOf(page: PDFPage, font: PDFFont) {
  const known = names.get(page) ?? new Map<PDFFont, PDFName>()
  names.set(page, known)
  const name = known.get(font) ?? page.node.newFontDictionary(font.name, font.ref)
  known.set(font, name)
  return name
}

/** A path in absolute lines and cubics. */
function cubic(d: string, transform = '') {
  return svgpath(d).transform(transform).abs().unshort().unarc()
}

function pathOperators(d: string, transform?: string): PDFOperator[] {
  const made: PDFOperator[] = []
  let start: [number, number] = [0, 0]
  cubic(d, transform).iterate((segment, _index, x, y) => {
    const [letter, ...n] = segment as unknown as [string, ...number[]]
    switch (letter) {
      case 'M':
        start = [n[0]!, n[1]!]
        made.push(moveTo(n[0]!, n[1]!))
        break
      case 'L':
        made.push(lineTo(n[0]!, n[1]!))
        break
      case 'H':
        made.push(lineTo(n[0]!, y))
        break
      case 'V':
        made.push(lineTo(x, n[0]!))
        break
      case 'C':
        made.push(appendBezierCurve(n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!))
        break
      case 'Q': {
        const third = (from: number, to: number) => from + (2 / 3) * (to - from)
        const [cx, cy, tx, ty] = n as [number, number, number, number]
        made.push(
          appendBezierCurve(third(x, cx), third(y, cy), third(tx, cx), third(ty, cy), tx, ty),
        )
        break
      }
      case 'Z':
      case 'z':
        made.push(closePath(), moveTo(...start))
        break
    }
  })
  return made
}

/** The box around the points of a path. */
function boxOf(d: string, transform?: string): readonly [number, number, number, number] | null {
  let box: [number, number, number, number] | null = null
  const take = (x: number, y: number) => {
    box = box
      ? [Math.min(box[0], x), Math.min(box[1], y), Math.max(box[2], x), Math.max(box[3], y)]
      : [x, y, x, y]
  }
  cubic(d, transform).iterate((segment, _index, x, y) => {
    const [letter, ...n] = segment as unknown as [string, ...number[]]
    if (letter === 'H') take(n[0]!, y)
    else if (letter === 'V') take(x, n[0]!)
    else for (let i = 0; i + 1 < n.length; i += 2) take(n[i]!, n[i + 1]!)
  })
  return box
}

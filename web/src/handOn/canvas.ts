import { type Drawing, type Drawn, setNote, type Typesetter } from '@yperkine/core'

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D
type Shape = Drawn & { kind: 'path' }
type Words = Drawn & { kind: 'words' }

/** Between the lines of a hatched inside, and how wide they are, in pixels. */
const [hatchStep, hatchWidth] = [6, 1.6]

/** Paints a drawing from the top left corner of a canvas, so many times as large as its own pixels. */
export function paint(context: Context, drawing: Drawing, setter: Typesetter, scale = 1) {
  const { width, height, ground, items } = drawing
  context.setTransform(scale, 0, 0, scale, 0, 0)
  context.clearRect(0, 0, width, height)
  if (ground !== null) {
    context.fillStyle = ground
    context.fillRect(0, 0, width, height)
  }
  for (const item of items) paintItem(context, item, setter)
}

function paintItem(context: Context, item: Drawn, setter: Typesetter) {
  switch (item.kind) {
    case 'path':
      return paintPath(context, item)
    case 'words':
      return paintWords(context, item, setter)
    case 'note':
      for (const one of setNote(item, setter)) paintItem(context, one, setter)
      return
    case 'group': {
      context.save()
      context.translate(item.x, item.y)
      if (item.scale !== undefined) context.scale(item.scale, item.scale)
      if (item.clip) {
        context.beginPath()
        context.rect(0, 0, item.clip.width, item.clip.height)
        context.clip()
      }
      for (const one of item.items) paintItem(context, one, setter)
      context.restore()
    }
  }
}

function paintPath(context: Context, item: Shape) {
  const { d, stroke, width, dashes, round, fill, opacity, transform } = item
  const path = transform === undefined ? new Path2D(d) : placed(d, transform)
  context.save()
  context.globalAlpha *= opacity
  if (fill !== null) {
    context.fillStyle = typeof fill === 'string' ? fill : hatched(context, fill)
    context.fill(path)
  }
  if (stroke !== null && width > 0) {
    context.strokeStyle = stroke
    context.lineWidth = width
    context.lineJoin = 'round'
    context.lineCap = round ? 'round' : 'butt'
    context.setLineDash([...dashes])
    context.stroke(path)
  }
  context.restore()
}

/** A path in the place that a transform in the notation of SVG gives it. */
function placed(d: string, transform: string): Path2D {
  const path = new Path2D()
  path.addPath(new Path2D(d), matrixOf(transform))
  return path
}

/** translate, rotate (in degrees), scale and matrix, one after the other. */
function matrixOf(transform: string): DOMMatrix {
  let matrix = new DOMMatrix()
  for (const [, name, inside] of transform.matchAll(/(\w+)\(([^)]*)\)/g)) {
    const n = inside!
      .trim()
      .split(/[\s,]+/)
      .map(Number)
    if (name === 'translate') matrix = matrix.translate(n[0], n[1] ?? 0)
    else if (name === 'scale') matrix = matrix.scale(n[0], n[1] ?? n[0])
    else if (name === 'matrix') matrix = matrix.multiply(new DOMMatrix(n))
    else if (name === 'rotate') {
      const [angle, x = 0, y = 0] = n
      matrix = matrix.translate(x, y).rotate(angle).translate(-x, -y)
    }
  }
  return matrix
}

function hatched(context: Context, { hatch, colour }: { hatch: 'up' | 'down'; colour: string }) {
  const tile = new OffscreenCanvas(hatchStep, hatchStep)
  const pen = tile.getContext('2d')
  if (!pen) return colour
  pen.fillStyle = colour
  pen.fillRect(0, 0, hatchWidth / 2, hatchStep)
  pen.fillRect(hatchStep - hatchWidth / 2, 0, hatchWidth / 2, hatchStep)
  const pattern = context.createPattern(tile, 'repeat')
  pattern?.setTransform(new DOMMatrix().rotate(hatch === 'up' ? 45 : -45))
  return pattern ?? colour
}

function paintWords(context: Context, item: Words, setter: Typesetter) {
  const { x, y, text, size, face, anchor, colour, halo, opacity } = item
  const set = setter.words(text, face, size)
  const left = x - (anchor === 'middle' ? set.width / 2 : anchor === 'end' ? set.width : 0)
  context.save()
  context.globalAlpha *= opacity
  context.translate(left, y)
  if (set.d !== '') {
    const path = new Path2D(set.d)
    if (halo !== null) {
      context.strokeStyle = halo
      context.lineWidth = size * 0.3
      context.lineJoin = 'round'
      context.stroke(path)
    }
    context.fillStyle = colour
    context.fill(path)
  }
  context.fillStyle = colour
  context.font = `${face.italic ? 'italic ' : ''}${face.weight} ${size}px ${face.family === 'serif' ? 'Georgia, serif' : 'Arial, sans-serif'}`
  for (const one of set.rest ?? []) context.fillText(one.text, one.x, 0)
  context.restore()
}

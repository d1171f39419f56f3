import type { Drawing, Typesetter } from '@yperkine/core'
import { paint } from './canvas'

/** A drawing as a bitmap, so many times as large as its own pixels. */
export async function pngOf(drawing: Drawing, setter: Typesetter, scale: number): Promise<Blob> {
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(drawing.width * scale)
  canvas.height = Math.round(drawing.height * scale)
  const context = canvas.getContext('2d')
  if (!context) throw new Error('this browser has no canvas to draw on')
  paint(context, drawing, setter, scale)
  return new Promise<Blob>((resolve, reject) => {
    canvas.toBlob((blob) => {
      if (blob) resolve(blob)
      else reject(new Error('the picture is too large for this browser'))
    }, 'image/png')
  })
}

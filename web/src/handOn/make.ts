import {
  type Drawing,
  type Evaluation,
  fileNameOf,
  pictureOf,
  type PictureParts,
  svgOf,
} from '@yperkine/core'
import type { WorkbenchStore } from '../workbench/store'
import { pngOf } from './png'
import type { Format, PictureSettings } from './settings'

/** Centimetres to a pixel: 96 are an inch. */
export const centimetre = 2.54 / 96

/** The picture of what is shown, of all lanes or those with the given ids. */
export function drawingOf(
  store: WorkbenchStore,
  settings: PictureSettings,
  lanes: readonly string[] | null,
): Drawing {
  const { evaluation, size, pictureScene } = store.getState()
  const { study } = evaluation
  const shown = study.lanes.filter((lane) => lanes === null || lanes.includes(lane.id))
  const { width, ruler, title, notes, working, ground } = settings
  const look = settings.look ?? study.display.look
  // The title stands on the picture once.
  const display = title ? { ...study.display, title: false } : study.display
  const part: Evaluation = { ...evaluation, study: { ...study, display, lanes: shown } }
  const onScreen = shown.reduce((sum, { id }) => sum + (size.heights[id] ?? 0), 0)
  const whole =
    settings.height ??
    (onScreen > 0 && size.width > 0 ? (width * onScreen) / size.width : width * 0.6)
  const heights = Object.fromEntries(
    shown.map(({ id }) => {
      const share = onScreen > 0 ? (size.heights[id] ?? 0) / onScreen : 1 / shown.length
      return [id, Math.max(40, Math.round(whole * share))]
    }),
  )
  const scene = pictureScene(part, { width, heights, type: 1 })
  const parts: PictureParts = { look, ground, ruler, title, notes, working }
  return pictureOf(part, scene, parts)
}

/** A picture as a file of a format. */
export async function pictureFile(
  drawing: Drawing,
  format: Format,
  settings: PictureSettings,
): Promise<{ name: string; blob: Blob }> {
  const { loadTypesetter } = await import('./typesetter')
  const setter = await loadTypesetter()
  const name = fileNameOf(drawing.title, format)
  if (format === 'pdf') {
    const { pdfOf, pointsOfPixel } = await import('./pdf')
    const [width, height] = [drawing.width * pointsOfPixel, drawing.height * pointsOfPixel]
    const part = { drawing, x: 0, y: 0, scale: pointsOfPixel }
    const bytes = await pdfOf(drawing.title, [{ width, height, parts: [part] }], setter)
    return { name, blob: new Blob([new Uint8Array(bytes)], { type: 'application/pdf' }) }
  }
  if (format === 'png') {
    const svg = svgOf(drawing, setter)
    return { name, blob: await pngOf(svg, drawing, settings.scale) }
  }
  const { unit, words } = settings
  const size = unit === 'cm' ? { centimetres: Number((drawing.width * centimetre).toFixed(2)) } : {}
  const svg = svgOf(drawing, setter, { words, ...size })
  return { name, blob: new Blob([svg], { type: 'image/svg+xml' }) }
}

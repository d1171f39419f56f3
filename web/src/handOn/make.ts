import {
  type Drawing,
  type Evaluation,
  fileNameOf,
  heightsIn,
  latexDocument,
  latexPicture,
  type LatexSource,
  latexWorking,
  handoutOf,
  hasSpace,
  pictureOf,
  type PictureParts,
  sheetOf,
  spaceId,
  type SheetOptions,
  svgOf,
  type Typesetter,
} from '@yperkine/core'
import type { WorkbenchStore } from '../workbench/store'
import { pngOf } from './png'
import { type Format, type PictureSettings, usualSettings } from './settings'

/** Centimetres to a pixel: 96 are an inch. */
export const centimetre = 2.54 / 96

/** The picture of what is shown, of all lanes or those with the given ids. */
export function drawingOf(
  store: WorkbenchStore,
  settings: PictureSettings,
  lanes: readonly string[] | null,
  { coarse = false } = {},
): Drawing {
  return drawnAs(store, store.getState().evaluation, settings, lanes, { coarse })
}

/** The picture of an evaluation of the study, such as that of another step. */
function drawnAs(
  store: WorkbenchStore,
  evaluation: Evaluation,
  settings: PictureSettings,
  lanes: readonly string[] | null,
  { figures = true, coarse = false } = {},
): Drawing {
  const { size, pictureScene } = store.getState()
  const { study } = evaluation
  const shown = study.lanes.filter((lane) => lanes === null || lanes.includes(lane.id))
  const { width, ruler, title, notes, working, ground } = settings
  const look = settings.look ?? study.display.look
  // The title stands on the picture once.
  const display = title ? { ...study.display, title: false } : study.display
  const part: Evaluation = { ...evaluation, study: { ...study, display, lanes: shown } }
  // Lanes beside surfaces have half of the screen.
  const isSeen = hasSpace(evaluation) && (lanes === null || lanes.includes(spaceId))
  const isOnScreen = shown.every(({ id }) => size.heights[id] !== undefined)
  const onScreen = isOnScreen ? shown.reduce((sum, { id }) => sum + size.heights[id]!, 0) : 0
  const whole =
    settings.height ??
    (onScreen > 0 && size.width > 0
      ? (width * onScreen) / (size.width * (isSeen ? 2 : 1))
      : width * 0.6)
  // A surface beside lanes adds its own height, unless someone has set that of the picture.
  const room = settings.height ?? whole + (isSeen && shown.length > 0 ? width * 0.55 : 0)
  const { space, lanes: forLanes } = isSeen ? heightsIn(part, room) : { lanes: whole }
  const heights = Object.fromEntries(
    shown.map(({ id }) => {
      const share = onScreen > 0 ? (size.heights[id] ?? 0) / onScreen : 1 / shown.length
      return [id, Math.max(40, Math.round(forLanes * share))]
    }),
  )
  const scene = pictureScene(part, { width, heights, type: 1 })
  const parts: PictureParts = {
    ...{ look, ground, ruler, title, notes, working, figures, coarse },
    ...(space === undefined ? {} : { space }),
  }
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
    return { name, blob: await pngOf(drawing, setter, settings.scale) }
  }
  const { unit, words } = settings
  const size = unit === 'cm' ? { centimetres: Number((drawing.width * centimetre).toFixed(2)) } : {}
  const svg = svgOf(drawing, setter, { words, ...size })
  return { name, blob: new Blob([svg], { type: 'image/svg+xml' }) }
}

/** As wide as a column of a paper at the most, so that labels are as large as its words. */
const widestInPaper = 14 / centimetre

/** A source of LaTeX as a file, with the characters in it that stand as empty boxes. */
interface LatexFile {
  name: string
  blob: Blob
  missing: readonly string[]
}

const latexFile = (title: string, { source, missing }: LatexSource): LatexFile => ({
  name: fileNameOf(title, 'tex'),
  blob: new Blob([source], { type: 'application/x-tex' }),
  missing: [...new Set(missing)],
})

/** The picture as a LaTeX document; what is chosen of the picture holds, and its ground is the paper. */
export function latexPictureFile(
  store: WorkbenchStore,
  settings: PictureSettings,
  lanes: readonly string[] | null,
): LatexFile {
  const drawing = drawingOf(store, inPaper(settings), lanes)
  return latexFile(drawing.title, latexDocument(drawing))
}

/** The working with its tables and the picture as a LaTeX document. */
export function latexWorkingFile(store: WorkbenchStore, settings: PictureSettings): LatexFile {
  const { evaluation } = store.getState()
  const drawing = latexPicture(drawingOf(store, inPaper(settings), null))
  const options = { answers: true, tables: true, picture: drawing.source }
  const { source, missing } = latexWorking(evaluation, options)
  const { title } = evaluation.study
  return latexFile(`${title} working`, { source, missing: [...drawing.missing, ...missing] })
}

function inPaper(settings: PictureSettings): PictureSettings {
  const width = Math.min(settings.width, widestInPaper)
  const height = settings.height === null ? null : (settings.height * width) / settings.width
  return { ...settings, width, height, ground: false, look: settings.look ?? 'paper' }
}

/** On paper: black and white, with what a reader needs and no title, which stands above. */
const onPaper: PictureSettings = {
  ...usualSettings,
  ...{ look: 'black and white', width: 760, height: 430 },
}

export interface PrintSettings extends SheetOptions {
  /** A sheet of the study, or so many steps of its lesson on each page. */
  what: 'sheet' | 1 | 2 | 4
}

/** The pages that are printed. */
export function pagesOf(
  store: WorkbenchStore,
  settings: PrintSettings,
  setter: Typesetter,
): Drawing[] {
  const { evaluation, history, stepEvaluation } = store.getState()
  if (settings.what === 'sheet') {
    const picture = drawnAs(store, evaluation, onPaper, null, { figures: settings.answers })
    return sheetOf(evaluation, picture, settings, setter)
  }
  const size = settings.what === 4 ? { width: 520, height: 300 } : { width: 760, height: 430 }
  const steps = history.present.steps.map((step) => ({
    ...{ title: step.title, question: step.question },
    picture: drawnAs(store, stepEvaluation(step.id), { ...onPaper, ...size }, null),
  }))
  return handoutOf(evaluation.study.title, steps, { ...settings, perPage: settings.what }, setter)
}

/** Pages as a PDF, each as large as its paper. */
export async function printedFile(
  pages: readonly Drawing[],
): Promise<{ name: string; blob: Blob }> {
  const [{ loadTypesetter }, { pdfOf, pointsOfPixel }] = await Promise.all([
    import('./typesetter'),
    import('./pdf'),
  ])
  const sheets = pages.map((drawing) => ({
    ...{ width: drawing.width * pointsOfPixel, height: drawing.height * pointsOfPixel },
    parts: [{ drawing, x: 0, y: 0, scale: pointsOfPixel }],
  }))
  const title = pages[0]?.title ?? ''
  const bytes = await pdfOf(title, sheets, await loadTypesetter())
  const blob = new Blob([new Uint8Array(bytes)], { type: 'application/pdf' })
  return { name: fileNameOf(`${title} sheet`, 'pdf'), blob }
}

import type { Drawing, Typesetter } from '../pictures/drawing'
import { latexDocument } from '../pictures/latex/document'
import { type PictureLook, pictureLooks } from '../pictures/palettes'
import { pictureOf } from '../pictures/picture'
import { heightsIn } from '../pictures/space/heights'
import { svgOf } from '../pictures/svg'
import { evaluatedThrough } from './evaluatedThrough'
import { createSceneMaker } from '../scene/scene'
import { textWidth } from '../scene/textWidth'
import type { Study } from '../study/schema'

export interface ExportOptions {
  /** SVG with its words as text, or the source of a LaTeX document with the picture. */
  format: 'svg' | 'latex'
  /** In pixels, 96 to an inch; the height is that of all lanes together. */
  width?: number
  height?: number
  /** That of the study where it is left out. */
  look?: PictureLook
  /** Whether the ground is filled. */
  background?: boolean
}

/** Sizes beyond these make no picture that anyone reads. */
const [least, most] = [80, 6000]

/**
 * The picture of a study as it opens, with all long work done: an SVG document whose words are text and
 * whose mathematics stands as its source, or a LaTeX document. Throws RangeError for a format or a look
 * that is not known, and for sizes that make no picture.
 */
export function exportPicture(
  study: Study,
  {
    format,
    width = 960,
    height = 520,
    look = study.display.look,
    background = true,
  }: ExportOptions,
): string {
  if (format !== 'svg' && format !== 'latex') {
    throw new RangeError(`a picture is made as svg or latex, and not as ${String(format)}`)
  }
  if (!pictureLooks.includes(look)) throw new RangeError(`unknown look: ${String(look)}`)
  for (const size of [width, height]) {
    if (!(size >= least && size <= most)) {
      throw new RangeError(`a picture is ${least} to ${most} pixels wide and high: ${String(size)}`)
    }
  }
  const drawing = drawingOfStudy(study, { width, height, look, background })
  return format === 'latex'
    ? latexDocument(drawing).source
    : svgOf(drawing, asText, { words: 'text' })
}

function drawingOfStudy(
  study: Study,
  { width, height, look, background }: Required<Omit<ExportOptions, 'format'>>,
): Drawing {
  const evaluation = evaluatedThrough(study)
  const { space, lanes } = heightsIn(evaluation, height)
  const share = Math.max(1, Math.floor(lanes / Math.max(1, study.lanes.length)))
  const heights = Object.fromEntries(study.lanes.map(({ id }) => [id, share]))
  const scene = createSceneMaker()(evaluation, { width, heights })
  return pictureOf(evaluation, scene, {
    ...{ look, ground: background, ruler: true, title: false, notes: true, working: false },
    ...(space === undefined ? {} : { space }),
  })
}

/** No outlines: words by their usual widths, and mathematics as it was written. */
const asText: Typesetter = {
  words: (text, _face, size) => ({ d: '', width: textWidth(text, size) }),
  maths: (latex, size) => ({
    ...{ d: '', width: textWidth(latex, size), above: size, below: size * 0.3 },
    rest: [{ text: latex, x: 0 }],
  }),
}

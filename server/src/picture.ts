import { type Picture, type Study, thumbnail } from '@yperkine/core'

/** Drawn four times as large as it is shown, so that lines and points have their usual sizes. */
const [width, height] = [592, 264]

/** The picture of a study in the list. All work in core is bounded, whatever its numbers. */
export const drawStudy = (study: Study): Picture => ({
  ...thumbnail(study, width, height),
  width,
  height,
})

/** What stands in the list for a study that could not be drawn. */
export const blankPicture: Picture = { path: '', axis: null, width, height, items: [] }

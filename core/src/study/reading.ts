import type { Study } from './schema'

/** What of a study moving something leaves as it is: what its lines are, and in which order. */
const shapeOf = (study: Study) => ({
  lines: study.lines.map(({ id, kind }) => [id, kind]),
  sliders: study.sliders.map(({ name }) => name),
  parts: study.parts.map(({ id, title }) => [id, title]),
  lanes: study.lanes.map(({ id, curve, order }) => [id, curve, order]),
  steps: study.steps.map(({ id, title }) => [id, title]),
  letter: study.variable.letter,
})

/**
 * Whether an edit is one that a reader makes: values, places, ends of spans, frames, switches, covers
 * and answers change, and no line, slider, part, lane or step comes, goes or trades its place.
 */
export const onlyMoves = (before: Study, after: Study): boolean =>
  before.title === after.title && JSON.stringify(shapeOf(before)) === JSON.stringify(shapeOf(after))

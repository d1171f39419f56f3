import { isCurveMaker, isMeasured, kindOf, type Statement } from '../statements'
import type { LineAction } from '../statements/contract'
import { sliderOfPlace } from './edits/places'
import type { Study } from './schema'
import { readNumber } from '../vocabulary/values'

/** What a line can do beside its slots; `speaks` where it has results to show. */
export function actionsOf(line: Statement, study: Study, speaks: boolean): readonly LineAction[] {
  const { actions } = kindOf(line)
  if (!actions) return []
  return actions(line, {
    speaks,
    letter: study.variable.letter,
    sliderOf(place) {
      const slider = sliderOfPlace(place, study)
      return slider && { name: slider.name, place: slider.place }
    },
    isMeasured: (curve) =>
      study.lines.some((l) => isCurveMaker(l) && l.name === curve && isMeasured(l)),
    number(text) {
      const read = readNumber(text, study.sliders)
      return read.ok ? read.value : null
    },
  })
}

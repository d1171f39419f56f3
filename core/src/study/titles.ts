import { readFormula } from '../calculus/readFormula'
import { toPlain } from '../language/print'
import { isFormulaLine, isSurfaceMaker, type SurfaceMaker } from '../statements'
import { curveText } from '../statements/shared/slots'
import type { Edit } from './edits/edit'
import { readingFor } from './edits/names'
import type { Study } from './schema'

/** What an empty start is called. */
export const blankTitle = 'New study'
/** Longer titles are cut. */
const longestTitle = 120

/** What a study is called while nobody has named it: its first formula. */
export const formulaTitle = (name: string, order: number, letter: string, plain: string): string =>
  `${curveText({ curve: name, order })}(${letter}) = ${plain}`.slice(0, longestTitle)

/** The same for a surface: z = x² + y². */
export const surfaceTitle = (
  { surface, first, second }: Pick<SurfaceMaker, 'surface' | 'first' | 'second'>,
  plain: string,
): string =>
  `${surface === 'z' ? surface : `${surface}(${first}, ${second})`} = ${plain}`.slice(
    0,
    longestTitle,
  )

/** The title by the first formula as it stands; null where there is none that can be read. */
function ownTitle(study: Study): string | null {
  const line = study.lines.find((one) => isFormulaLine(one) || isSurfaceMaker(one))
  const read = line && readFormula(line.formula, readingFor(study, line))
  if (!line || !read?.ok) return null
  if (isSurfaceMaker(line)) return surfaceTitle(line, toPlain(read.tree))
  const order = 'order' in line ? line.order : 0
  return formulaTitle(line.name, order, study.variable.letter, toPlain(read.tree))
}

/** An edit after which the title is that of the changed formula, where nobody has given it another one. */
export const titled =
  (edit: Edit): Edit =>
  (study) => {
    const changed = edit(study)
    const isOwn = study.title === blankTitle || study.title === ownTitle(study)
    if (!isOwn || changed === study) return changed
    const title = ownTitle(changed)
    return title === null ? changed : { ...changed, title }
  }

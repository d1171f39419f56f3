import { readFormula } from '../calculus/readFormula'
import { nameToLatex } from '../language/latex'
import type { Parsed } from '../language/parse'
import type { SurfaceMaker } from '../statements'
import { cutSides, surfaceDefinition } from '../statements/surface/said'
import { readingFor } from './edits/names'
import type { Study } from './schema'

/** What is typed for a surface, while it is typed: read, with how its left side is typeset. */
export function typedSurface(
  study: Study,
  line: SurfaceMaker,
  text: string,
): { parsed: Parsed; shift: number; head: string } {
  const typed = surfaceDefinition(text)
  const [first, second] = typed?.letters ?? [line.first, line.second]
  const name = typed?.name ?? line.surface
  const { formula } = cutSides(typed?.body ?? text, [first, second])
  const [f, x, y] = [name, first, second].map(nameToLatex)
  return {
    parsed: readFormula(formula, readingFor(study, { ...line, first, second })),
    shift: Math.max(0, text.indexOf(formula)),
    head: name === 'z' && first === 'x' && second === 'y' ? 'z' : `${f!}(${x!}, ${y!})`,
  }
}

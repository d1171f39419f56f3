import { createEvaluator } from './evaluate'
import { isCurveMaker, type Statement } from '../statements'
import { conditionsIn, readCondition } from '../statements/condition'
import { newNote } from '../statements/note'
import { shownStudy } from '../study/overlay'
import type { Study } from '../study/schema'

/** So often a stretch is halved: doubles have no more places between two neighbours on a grid. */
const halvings = 60
/** A stop this near to where the slider would stand anyway, in steps of it, is that. */
const nearGrid = 1e-7

/**
 * Finds where a slider stops on its way: the first place at which `text` begins to hold between two of
 * its values. An equation begins to hold where its sides cross, which is solved for by bisection to
 * neighbouring doubles; where they only touch within one step of the slider it is not seen. At a place
 * where it holds already it does not stop again. A text that cannot be read stops nothing.
 */
export function createStopper() {
  const evaluate = createEvaluator()
  let probe: { study: Study; text: string; watched: Study; equations: number } | null = null

  /** A study of the curves alone, and a line shown under each condition that is watched. */
  function watching(study: Study, text: string) {
    if (probe?.study === study && probe.text === text) return probe
    const read = readCondition(text)
    const lines = study.lines.filter(isCurveMaker)
    const [first] = lines
    if (!read.ok || !first) return null
    const equations = conditionsIn(read.condition).flatMap((one) =>
      one.kind === 'compare'
        ? one.signs.flatMap((sign, i) =>
            sign === '=' ? [[one.sides[i]!.text, one.sides[i + 1]!.text] as const] : [],
          )
        : [],
    )
    const conditions = [text, ...equations.flatMap(([l, r]) => [`${l} > ${r}`, `${l} < ${r}`])]
    const watch = conditions.map((when, i): Statement => ({
      ...newNote('·', first.name, 0),
      ...{ id: `stop${i}`, when },
    }))
    const watched: Study = {
      ...study,
      ...{ lanes: [], steps: [], lines: [...lines.map(unpart), ...watch] },
    }
    probe = { study, text, watched, equations: equations.length }
    return probe
  }

  return (study: Study, name: string, text: string, from: number, to: number): number | null => {
    const now = watching(study, text)
    if (!now || from === to) return null
    const holdsAt = (value: number) => {
      const { showing } = evaluate(shownStudy(now.watched, { live: { [name]: value } }))
      return (i: number) => {
        const found = showing.get(`stop${i}`)
        return found !== undefined && found.shown && found.problems.length === 0
      }
    }
    const step = study.sliders.find((s) => s.name === name)?.step ?? 1
    const settled = (value: number) =>
      Math.abs(value - to) < nearGrid * step
        ? to
        : Math.abs(value - from) < nearGrid * step
          ? from
          : value
    const before = holdsAt(from)
    const after = holdsAt(to)
    /** The first place where a truth is another than at the beginning. */
    const change = (truth: (at: (i: number) => boolean) => boolean): number => {
      const first = truth(before)
      let [low, high] = [from, to]
      for (let i = 0; i < halvings; i++) {
        const middle = low + (high - low) / 2
        if (middle === low || middle === high) break
        if (truth(holdsAt(middle)) === first) low = middle
        else high = middle
      }
      return high
    }
    const found: number[] = []
    if (!before(0) && after(0) && now.equations === 0) found.push(change((at) => at(0)))
    for (let i = 0; i < now.equations; i++) {
      const [above, below] = [2 * i + 1, 2 * i + 2]
      const side = (at: (i: number) => boolean) => (at(above) ? 1 : at(below) ? -1 : 0)
      const [was, is] = [side(before), side(after)]
      // It stands on it already, or nothing has crossed.
      if (was === 0 || was === is) continue
      const place = is === 0 ? to : settled(change((at) => side(at) !== was))
      if (holdsAt(place)(0)) found.push(place)
    }
    if (found.length === 0) return null
    return settled(to > from ? Math.min(...found) : Math.max(...found))
  }
}

/** Switches say nothing of where a curve runs. */
const unpart = (line: Statement): Statement => ({ ...line, part: undefined, when: undefined })

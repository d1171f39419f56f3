import type { Evaluation } from '../results/evaluation'
import type { Study } from '../study/schema'
import { fitSpan } from './fit'
import { canBeDrawn, toPixelX } from './frame'
import { createKeeper, type Keeper } from './keeper'
import type { LabelSides } from './labels'
import type { Findings } from './ground'
import { makeLane } from './lane'
import { marksByCurve } from './lineMarks'
import { looksOf } from './looks'
import type { Scene, Viewport } from './picture'
import { placeOnRuler } from './ruler'
import { round } from './sampleCurve'
import { axisTicks, piTicks } from './ticks'

export type SceneMaker = (evaluation: Evaluation, viewport: Viewport, findings?: Findings) => Scene
const nothingFound: Findings = new Map()

/** Makes a function from results to a display list; it redoes only what has changed. */
export function createSceneMaker(): SceneMaker {
  const keeper = createKeeper()
  const sides = new Map<string, LabelSides>()
  return (evaluation, viewport, findings = nothingFound) => {
    const scene = makeScene(evaluation, viewport, findings, keeper, sides)
    keeper.turn()
    return scene
  }
}

/** The horizontal frame of a study: as set, or the span of its curves with a little room. */
export function frameOf(study: Study, evaluation: Evaluation): [number, number] {
  if (study.frame) return study.frame
  const spans = [...evaluation.curves.values()].flatMap((c) =>
    c.ok ? [[c.curve.from, c.curve.to] as const] : [],
  )
  if (spans.length === 0) return [-10.7, 10.7]
  return fitSpan(Math.min(...spans.map(([a]) => a)), Math.max(...spans.map(([, b]) => b)))
}

function makeScene(
  evaluation: Evaluation,
  viewport: Viewport,
  findings: Findings,
  keeper: Keeper,
  sides: Map<string, LabelSides>,
): Scene {
  const { study } = evaluation
  const { width } = viewport
  const [x0, x1] = viewport.heldX ?? frameOf(study, evaluation)
  const x = keeper.keep('x', [x0, x1], () => [x0, x1] as const)
  const across = canBeDrawn(x)
  const kind = study.display.ticks
  const ticks = keeper.keep('ticks', [x, width, kind], () => {
    const values = !across
      ? []
      : kind === 'pi'
        ? piTicks(x0, x1, width, 70)
        : axisTicks(x0, x1, width, 70, true)
    return values.map(({ value, text }) => ({ at: round(toPixelX({ x, width }, value)), text }))
  })
  const lookOf = keeper.keep('looks', study.lines, () => looksOf(study.lines))
  const marksOf = marksByCurve(evaluation)
  const shared = { x, width, ticks, across, marksOf, lookOf }
  const ground = { evaluation, viewport, findings, keeper, sides, ...shared }
  const lanes = study.lanes.map((lane) => makeLane(lane, ground))
  if (!across) return { x, width, ticks, lanes, flags: [], bars: [] }
  return { x, width, ticks, lanes, ...placeOnRuler(evaluation, x, width, keeper) }
}

import type { Evaluation } from '../results/evaluation'
import type { Study } from '../study/schema'
import { fitSpan } from './fit'
import { canBeDrawn, toPixelX } from './frame'
import { createKeeper, type Keeper } from './keeper'
import type { LabelSides } from './labels'
import type { Findings, Ground } from './ground'
import { makeLane, widthForEqualScale } from './lane'
import { marksByCurve, type Ways } from './lineMarks'
import { looksOf, typeOf } from './looks'
import type { Scene, Viewport } from './picture'
import { startItems } from './starts'
import { placeOnRuler } from './ruler'
import { round } from './sampleCurve'
import { axisTicks, piTicks } from './ticks'

export type SceneMaker = (evaluation: Evaluation, viewport: Viewport, findings?: Findings) => Scene
const nothingFound: Findings = new Map()

/** Makes a function from results to a display list; it redoes only what has changed. */
export function createSceneMaker(): SceneMaker {
  const keeper = createKeeper()
  const sides = new Map<string, LabelSides>()
  const ways: Ways = new Map()
  return (evaluation, viewport, findings = nothingFound) => {
    const scene = makeScene(evaluation, viewport, findings, keeper, sides, ways)
    keeper.turn()
    return scene
  }
}

/**
 * The horizontal frame of a study: as set, or what its curves have to show, which is the span of each
 * with a little room, or the window of one that is drawn everywhere.
 */
function frameOf(study: Study, evaluation: Evaluation): [number, number] {
  if (study.frame) return study.frame
  const spans = [...evaluation.curves.values()].flatMap((c) =>
    c.ok ? [c.curve.window ?? fitSpan(c.curve.from, c.curve.to)] : [],
  )
  if (spans.length === 0) return [-10, 10]
  return [Math.min(...spans.map(([a]) => a)), Math.max(...spans.map(([, b]) => b))]
}

/** The frame made so wide that lanes with equal scale show all of their heights. */
function widened(study: Study, ground: Ground): readonly [number, number] {
  const [from, to] = ground.x
  const wide = Math.max(...study.lanes.map((lane) => widthForEqualScale(lane, ground)))
  if (!(wide > to - from)) return ground.x
  const middle = (from + to) / 2
  return [middle - wide / 2, middle + wide / 2]
}

function makeScene(
  evaluation: Evaluation,
  viewport: Viewport,
  findings: Findings,
  keeper: Keeper,
  sides: Map<string, LabelSides>,
  ways: Ways,
): Scene {
  const { study } = evaluation
  const { width } = viewport
  const { off } = evaluation
  const lookOf = keeper.keep('looks', [off, ...study.lines], () => looksOf(study.lines, off))
  const marksOf = marksByCurve(evaluation, ways)
  const given = viewport.heldX ?? frameOf(study, evaluation)
  const unwidened = keeper.keep('unwidened', [...given], () => given)
  const type = viewport.type ?? typeOf(study.display.look)
  const still = {
    type,
    evaluation,
    viewport,
    findings,
    keeper,
    sides,
    marksOf,
    lookOf,
    unwidened,
    width,
  }
  const isSet = viewport.heldX !== undefined || study.frame !== null
  const [x0, x1] = isSet ? given : widened(study, { ...still, x: given, ticks: [], across: true })
  const x = keeper.keep('x', [x0, x1], () => [x0, x1] as const)
  const across = canBeDrawn(x)
  const { ticks: kind, numbers } = study.display
  const ticks = keeper.keep('ticks', [x, width, kind, numbers, type], () => {
    const values = !across
      ? []
      : kind === 'pi'
        ? piTicks(x0, x1, width / type, 70)
        : axisTicks(x0, x1, width / type, 70, true)
    return values.map(({ value, text }) => ({
      at: round(toPixelX({ x, width }, value)),
      text,
      ...(numbers ? {} : { silent: true }),
    }))
  })
  const ground = { ...still, x, ticks, across }
  const lanes = study.lanes.map((lane) => makeLane(lane, ground))
  if (!across) return { x, width, ticks, lanes, flags: [], bars: [], starts: [] }
  const starts = startItems(evaluation, x, width, keeper)
  return { x, width, ticks, lanes, ...placeOnRuler(evaluation, x, width, keeper), starts }
}

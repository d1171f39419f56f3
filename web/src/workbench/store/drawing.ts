import {
  createEvaluator,
  createSceneMaker,
  grownTrails,
  noTrails,
  type Evaluation,
  type History,
  type Scene,
  shownStudy,
} from '@yperkine/core'
import { trace } from '../../parts/trace'
import { createFindings } from './findings'
import type { GetWorkbench, SetWorkbench, Size, Workbench } from './state'

/**
 * A line that takes more steps than this goes to the worker, and sooner where its steps are slow:
 * in milliseconds, while something moves and else.
 */
const mostSteps = 150
const [moving, still] = [12, 60]

export const noneExamined: Workbench['examined'] = new Map()

/** A lane that has no height yet has no frame to keep. */
export const drawn = ({ lanes }: Scene) => lanes.filter((l) => l.height > 0)

/** The parts of a workbench that follow from its study, and the way there. */
export function createDrawing(set: SetWorkbench, get: GetWorkbench) {
  const patience = () => {
    const isHurried = get()?.held != null || get()?.courses != null
    const until = performance.now() + (isHurried ? moving : still)
    let steps = 0
    return () => steps++ < mostSteps && performance.now() < until
  }
  const evaluate = createEvaluator({
    patience,
    onFault: (error, line) => trace(`${line} could not be worked out`, error),
  })
  const makeScene = createSceneMaker()
  const findingsFor = createFindings()

  const sceneFor = (
    evaluation: Evaluation,
    size: Size,
    held: Workbench['held'],
    {
      hurried = false,
      examined = get()?.examined ?? noneExamined,
      trails = get()?.trails ?? noTrails,
    } = {},
  ) =>
    makeScene(
      evaluation,
      {
        ...size,
        ...(held?.x ? { heldX: held.x } : {}),
        ...(held ? { held: new Map(held.lanes.map((l) => [l.id, l.y])) } : {}),
        hurried: hurried || held !== null,
        trails,
      },
      findingsFor(evaluation, examined),
    )

  /**
   * The one way a study reaches the page: what else changes with it goes along, so that
   * everything on the page follows one notification.
   */
  const show = (
    history: History,
    change: Partial<Pick<Workbench, 'held' | 'courses' | 'live' | 'announcement'>> = {},
  ) => {
    const { size, held, live } = { ...get(), ...change }
    const evaluation = evaluate(shownStudy(history.present, { live: Object.fromEntries(live) }))
    const hurried = history.gesture !== null
    const { courses = get().courses } = change
    const trails = grownTrails(get().trails, evaluation, hurried || courses !== null)
    const scene = sceneFor(evaluation, size, held, { hurried, trails })
    set({ history, evaluation, scene, trails, ...change })
  }
  return { evaluate, sceneFor, show }
}

export type Drawing = ReturnType<typeof createDrawing>

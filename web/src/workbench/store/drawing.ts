import {
  createEvaluator,
  createSceneMaker,
  grownTrails,
  noTrails,
  type Evaluation,
  type History,
  type Scene,
  shownStudy,
  type Study,
  type Trails,
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
export const drawn = ({ lanes }: Pick<Scene, 'lanes'>) => lanes.filter((l) => l.height > 0)

/** The parts of a workbench that follow from its study, and the way there. */
export function createDrawing(set: SetWorkbench, get: GetWorkbench) {
  const patience = () => {
    const isHurried = get()?.held != null || get()?.courses != null || get()?.glide != null
    const until = performance.now() + (isHurried ? moving : still)
    let steps = 0
    return () => steps++ < mostSteps && performance.now() < until
  }
  const evaluate = createEvaluator({
    patience,
    onFault: (error, line) => trace(`${line} could not be worked out`, error),
  })
  let laid: { present: Study; step: string | null; shown: Study } | null = null
  /** The study as its step shows it: the same one as long as neither changes. */
  const inItsStep = ({ present, step }: History): Study => {
    if (laid?.present !== present || laid.step !== step) {
      laid = { present, step, shown: shownStudy(present, { step }) }
    }
    return laid.shown
  }
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
    change: Partial<
      Pick<
        Workbench,
        'held' | 'courses' | 'live' | 'announcement' | 'glide' | 'arrival' | 'halted' | 'trails'
      >
    > = {},
  ) => {
    const { size, held, live, glide, courses, trails: before } = { ...get(), ...change }
    const shown = inItsStep(history)
    const evaluation = evaluate(shownStudy(shown, { live: Object.fromEntries(live) }))
    const hurried = history.gesture !== null
    // What is passed on the way to another step leaves nothing.
    const trails = glide ? before : grownTrails(before, evaluation, hurried || courses !== null)
    const scene = sceneFor(evaluation, size, held, { hurried, trails })
    set({ history, shown, evaluation, scene, ...change, trails })
  }
  /** Where a state that is not drawn yet would be framed. */
  const framesOf = (study: Study, size: Size) => {
    const { x, lanes } = sceneFor(evaluate(study), size, null)
    return { x, lanes: drawn({ lanes }) }
  }
  /** A scene of its own for a picture that is handed on, with what has been found out so far. */
  const pictureScene = (evaluation: Evaluation, size: Size) =>
    createSceneMaker()(
      evaluation,
      { ...size, trails: get().trails },
      findingsFor(evaluation, get().examined),
    )
  /** Scenes of a clip, one maker for all of them: in the frames of a scene, where one is given. */
  const clipScenes = (held: Scene | null) => {
    const makeClip = createSceneMaker()
    return (evaluation: Evaluation, size: Size, trails: Trails) =>
      makeClip(
        evaluation,
        {
          ...size,
          ...(held ? { heldX: held.x, held: new Map(held.lanes.map((l) => [l.id, l.y])) } : {}),
          trails,
        },
        findingsFor(evaluation, get().examined),
      )
  }
  /** What the lines come to in a step that need not be open. */
  const stepEvaluation = (step: string) => evaluate(shownStudy(get().history.present, { step }))
  return { evaluate, sceneFor, show, framesOf, pictureScene, clipScenes, stepEvaluation }
}

export type Drawing = ReturnType<typeof createDrawing>

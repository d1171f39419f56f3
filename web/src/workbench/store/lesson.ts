import {
  changeStep,
  type History,
  keepAsStep,
  noTrails,
  openStep,
  startCourse,
  type Step,
  type Trails,
} from '@yperkine/core'
import { type Drawing, drawn } from './drawing'
import { isStill, stepOf } from './glide'
import type { GetWorkbench, SetWorkbench, Workbench } from './state'

/** The lesson: going from step to step, keeping steps, playing what they play. */
export function lesson(
  set: SetWorkbench,
  get: GetWorkbench,
  { show }: Drawing,
): Pick<Workbench, 'goToStep' | 'goOn' | 'keepStep' | 'playStep' | 'keepTrails'> {
  /** What is told of a step that is come to. */
  const tell = (history: History) => {
    const { steps } = history.present
    const at = steps.findIndex((s) => s.id === history.step)
    const step = steps[at]
    const question = step?.question ? ` ${step.question}` : ''
    get().announce(
      step ? `Step ${at + 1} of ${steps.length}: ${step.title}.${question}` : 'No step is open',
    )
  }
  return {
    goToStep(id) {
      get().pause()
      get().endGlide()
      const { history, evaluation, scene } = get()
      const next = openStep(history, id)
      const step = stepOf(next.present, next.step)
      const trails = step ? trailsOf(step) : noTrails
      const still = {
        live: new Map<string, number>(),
        held: null,
        arrival: null,
        halted: null,
        trails,
      }
      const before = evaluation.study.sliders
      if (isStill()) {
        show(next, still)
        tell(next)
        return
      }
      show(next, { ...still, glide: null })
      const values = new Map(
        get().shown.sliders.flatMap(({ name, value }) => {
          const was = before.find((s) => s.name === name)?.value
          return was === undefined || was === value ? [] : [[name, [was, value] as const]]
        }),
      )
      const from = { x: scene.x, lanes: drawn(scene) }
      set({ glide: { since: 0, values, from, to: null } })
      get().glideOn(0)
      tell(next)
    },
    goOn(by) {
      const { history } = get()
      const { steps } = history.present
      if (steps.length === 0) return
      const at = steps.findIndex((s) => s.id === history.step)
      const next = at < 0 ? (by === 1 ? 0 : steps.length - 1) : at + by
      if (next < 0 || next >= steps.length) {
        get().announce(next < 0 ? 'This is the first step' : 'This is the last step')
        return
      }
      get().goToStep(steps[next]!.id)
    },
    keepStep() {
      const { history, live, apply, announce } = get()
      const open = history.step
      apply(keepAsStep('', open, Object.fromEntries(live)))
      const { steps } = get().history.present
      if (steps.length === history.present.steps.length) {
        announce(`A study holds ${steps.length} steps, and no more`)
        return
      }
      const at = steps.findIndex((s) => s.id === open)
      const kept = at < 0 ? steps.at(-1)! : steps[at + 1]!
      // Where a step is open, the new one takes what is changed next.
      if (open !== null) show(openStep(get().history, kept.id))
      announce(`Kept as step ${steps.indexOf(kept) + 1}: ${kept.title}`)
    },
    playStep() {
      get().endGlide()
      const { history, shown, courses, live, arrival, halted, scene } = get()
      const step = stepOf(history.present, history.step)
      const plays = (step?.plays ?? []).filter((p) =>
        shown.sliders.some((s) => s.name === p.slider),
      )
      if (courses || plays.length === 0) return false
      if (halted) {
        set({ courses: halted, halted: null, held: { x: scene.x, lanes: drawn(scene) } })
        return true
      }
      const motions = new Map(plays.map((p) => [p.slider, p.motion]))
      const hasPlayed = arrival !== null && live.size > 0
      if (hasPlayed) return false
      set({
        arrival: motions,
        held: { x: scene.x, lanes: drawn(scene) },
        courses: new Map(
          plays.map(({ slider: name, motion }) => {
            const slider = shown.sliders.find((s) => s.name === name)!
            return [name, startCourse({ ...slider, motion })]
          }),
        ),
      })
      return true
    },
    keepTrails(kept) {
      const { history, trails, apply } = get()
      if (history.step === null) return
      const runs = [...trails].map(([line, trail]): [string, number[][]] => [
        line,
        trail.runs.filter((run) => run.length > 1).map((run) => [...run]),
      ])
      apply(changeStep(history.step, { trails: kept ? Object.fromEntries(runs) : {} }))
    },
  }
}

/** The trails that a step keeps. */
const trailsOf = ({ trails }: Step): Trails =>
  new Map(Object.entries(trails).map(([line, runs]) => [line, { runs, open: false }]))

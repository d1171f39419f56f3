import { type Scene, snapToStep, type Step, type Study } from '@yperkine/core'
import { type Drawing } from './drawing'
import type { GetWorkbench, Glide, Workbench } from './state'

/** How long it takes to go from one step to another, in seconds. */
const glideSeconds = 0.6

/** Nothing moves by itself for those who want it so. */
export const isStill = () => matchMedia('(prefers-reduced-motion: reduce)').matches

/** A step of a study by its id. */
export const stepOf = (study: Study, id: string | null): Step | undefined =>
  study.steps.find((step) => step.id === id)

/** Slow at both ends. */
const eased = (share: number) => share * share * (3 - 2 * share)
const between = ([from, to]: readonly [number, number], share: number) =>
  share >= 1 ? to : from + (to - from) * share

type Stretch = readonly [number, number]
const stretchBetween = (from: Stretch, to: Stretch, share: number): Stretch => [
  between([from[0], to[0]], share),
  between([from[1], to[1]], share),
]

/** The way from one step to another. */
export function glide(
  get: GetWorkbench,
  { show, framesOf }: Drawing,
): Pick<Workbench, 'endGlide' | 'glideOn'> {
  /** What begins by itself when a step has been come to. */
  const arrive = () => {
    const { history } = get()
    if (stepOf(history.present, history.step)?.plays.length && !isStill()) get().playStep()
  }
  return {
    endGlide() {
      const { glide, history } = get()
      if (glide) show(history, { glide: null, live: new Map(), held: null })
    },
    glideOn(seconds) {
      const { glide, shown, size, history } = get()
      if (!glide) return
      const to = glide.to ?? framesOf(shown, size)
      const since = glide.since + seconds
      if (since >= glideSeconds) {
        get().endGlide()
        arrive()
        return
      }
      const share = eased(since / glideSeconds)
      const live = new Map(
        [...glide.values].map(([name, way]) => {
          const slider = shown.sliders.find((s) => s.name === name)!
          return [name, snapToStep(slider, between(way, share))]
        }),
      )
      // The page makes room for other lanes after the first of its pictures.
      const known = glide.since > 0 ? to : null
      show(history, {
        live,
        held: framesBetween(glide.from, to, share),
        glide: { ...glide, since, to: known },
      })
    },
  }
}

/** Frames on the way; a lane that was not there before stands as it will. */
function framesBetween(
  from: Glide['from'],
  to: Pick<Scene, 'x' | 'lanes'>,
  share: number,
): NonNullable<Workbench['held']> {
  const lanes = to.lanes.map((lane) => {
    const was = from.lanes.find(
      (l) => l.id === lane.id && l.curve === lane.curve && l.order === lane.order,
    )
    return was ? { ...lane, y: stretchBetween(was.y, lane.y, share) } : lane
  })
  return { x: stretchBetween(from.x, to.x, share), lanes }
}

import {
  advanceAll,
  advanceWalk,
  createStopper,
  type Edit,
  endGesture,
  formatShort,
  movingSliders,
  noTrails,
  restAt,
  setSlider,
  shownStudy,
  startCourse,
  startWalk,
  takenFromStep,
  takeWalk,
  valueOn,
  type WalkCourse,
} from '@yperkine/core'
import { type Drawing, drawn } from './drawing'
import type { GetWorkbench, SetWorkbench, Workbench } from './state'

/** Proven zeros and turning points of the curves in view. */
const worthALook = (examined: Workbench['examined']): number[] =>
  [...examined.values()].flatMap(({ examination: { zeros, turningPoints } }) =>
    [...zeros, ...turningPoints].map((f) => f.x),
  )

/** What moves: gestures, which keep the frame still, and the transport. */
export function motion(
  set: SetWorkbench,
  get: GetWorkbench,
  { show }: Drawing,
): Pick<
  Workbench,
  'hold' | 'release' | 'play' | 'pause' | 'tick' | 'step' | 'startWalk' | 'stopWalk' | 'clearTrails'
> {
  const stopOn = createStopper()
  const tellOfWalk = ({ walk, at }: WalkCourse) => {
    const distance = walk.distances[at]!
    const said = distance >= 1e-6 ? formatShort(distance, 6) : distance
    const result = get().evaluation.lines.get(walk.line)
    const slope = result?.readouts.find((r) => r.id === 'slope')?.text
    get().announce(`${walk.slider} = ${said}${slope ? `: slope ${slope}` : ''}`)
  }
  const takeStep = (course: WalkCourse) => {
    get().apply(takeWalk(course), 'closing')
    tellOfWalk(course)
  }
  return {
    hold(what = 'frame') {
      get().pause()
      const { scene } = get()
      set({ held: { x: what === 'frame' ? scene.x : null, lanes: drawn(scene) } })
    },
    release(words) {
      show(endGesture(get().history), { held: null })
      if (words) get().announce(words(get().evaluation))
    },
    play() {
      const { evaluation, scene, courses } = get()
      const moving = movingSliders(evaluation.study)
      if (courses || moving.length === 0) return
      get().endGlide()
      set({
        held: { x: scene.x, lanes: drawn(scene) },
        courses: new Map(moving.map((slider) => [slider.name, startCourse(slider)])),
        arrival: null,
      })
    },
    pause() {
      get().stopWalk()
      const { courses, live, history, shown, arrival } = get()
      if (!courses) return
      const there = shownStudy(shown, { live: Object.fromEntries(live) })
      if (arrival) {
        // What a step plays leaves the step as it was: come to again, it begins anew.
        const halted = [...courses.values()].every((c) => c.ended) ? null : courses
        show(endGesture(history), { courses: null, held: null, halted })
      } else {
        const present = takenFromStep(history.present, history.step, shown, there)
        const stopped = { courses: null, live: new Map<string, number>(), held: null }
        show({ ...history, present, gesture: null }, stopped)
      }
      const values = there.sliders.filter((s) => courses.has(s.name))
      get().announce(values.map((s) => `${s.name} = ${formatShort(s.value, 6)}`).join(', '))
    },
    clearTrails() {
      set({ trails: noTrails })
      show(get().history)
      get().announce('Trails cleared')
    },
    startWalk(walk) {
      get().pause()
      const course = startWalk(walk, get().shown)
      if (course) takeStep(course)
      set({ walk: course })
    },
    stopWalk() {
      if (get().walk) set({ walk: null })
    },
    tick(seconds) {
      const { courses, history, walk, glide } = get()
      if (glide) get().glideOn(seconds)
      if (walk) {
        const next = advanceWalk(walk, seconds)
        set({ walk: next })
        if (next && next.at !== walk.at) takeStep(next)
      }
      if (!courses) return
      const { evaluation, arrival, examined } = get()
      const sliders = evaluation.study.sliders.map((slider) => {
        const motion = arrival?.get(slider.name)
        return motion ? { ...slider, motion } : slider
      })
      const next = advanceAll(courses, sliders, seconds)
      const live = new Map(get().live)
      for (const slider of sliders) {
        const [before, after] = [courses.get(slider.name), next.get(slider.name)]
        if (!before || !after || before === after) continue
        const places = slider.motion.pauses ? worthALook(examined) : []
        const course = restAt(before, after, slider, places)
        const value = valueOn(course, slider)
        const stop = slider.motion.stop
          ? stopOn(evaluation.study, slider.name, slider.motion.stop, slider.value, value)
          : null
        next.set(slider.name, stop === null ? course : { ...course, ended: true })
        live.set(slider.name, stop ?? value)
      }
      show(history, { courses: next, live })
      if ([...next.values()].every((c) => c.ended)) get().pause()
    },
    step(by) {
      get().pause()
      const edit: Edit = (study) =>
        movingSliders(study).reduce(
          (now, s) => setSlider(s.name, s.value + by * s.step)(now),
          study,
        )
      get().apply(edit, 'step')
      const { study } = get().evaluation
      const values = movingSliders(study).map((s) => `${s.name} = ${formatShort(s.value, 6)}`)
      get().announce(values.join(', '))
    },
  }
}

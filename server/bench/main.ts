import {
  createEvaluator,
  createSceneMaker,
  keepAsStep,
  offersFor,
  shownStudy,
  type Study,
} from '@yperkine/core'
import { demoStudies } from '../src/demo/studies'

/** The shortest of some runs, in milliseconds. */
function fastest(work: () => void, repeat: number): number {
  let best = Infinity
  for (let i = 0; i < repeat; i++) {
    const started = performance.now()
    work()
    best = Math.min(best, performance.now() - started)
  }
  return best
}
const report = (what: string, milliseconds: number, against: number) =>
  console.log(
    `${what.padEnd(58)}${milliseconds.toFixed(3).padStart(10)} ms${`${(milliseconds / against).toFixed(2)} ×`.padStart(12)}`,
  )

/** A study from nothing: evaluated and laid out, as a step shows it. */
function open(study: Study, step: string | null = null) {
  const shown = shownStudy(study, { step })
  const heights = Object.fromEntries(shown.lanes.map((l) => [l.id, 200]))
  createSceneMaker()(createEvaluator()(shown), { width: 792, heights })
}

// A lesson of 20 steps and 60 lines, beside the demo study that takes longest to open.
const slowest = Math.max(...demoStudies.map(({ study }) => fastest(() => open(study), 3)))
let lesson = demoStudies.find(({ study }) => study.steps.length > 0)!.study
const words = ['value of q', 'tangent to q', 'secant to q']
for (let i = 0; lesson.lines.length < 60; i++) {
  lesson = offersFor(words[i % 3]!, lesson, null)[0]!.edit(lesson)
}
while (lesson.steps.length < 20) lesson = keepAsStep()(lesson)
console.log('\nA lesson of 20 steps and 60 lines')
report('the demo study that takes longest to open', slowest, slowest)
report(
  'the lesson opened',
  fastest(() => open(lesson), 5),
  slowest,
)
report(
  'a step of it, from nothing',
  fastest(() => open(lesson, 'step8'), 5),
  slowest,
)

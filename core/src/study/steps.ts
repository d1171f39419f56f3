import { isCurveMaker } from '../statements'
import type { Answers, Lane, Step } from '../vocabulary/members'
import type { Study } from './schema'

/** A study as a step shows it. What the step speaks of and is gone is left out. */
export function inStep(study: Study, id: string | null | undefined): Study {
  const step = study.steps.find((one) => one.id === id)
  if (!step) return study
  const on = new Map(step.parts.map((part) => [part.id, part.on]))
  const alive = step.lanes.flatMap((lane) => living(lane, study) ?? [])
  const isWhole = alive.length === step.lanes.length && alive.every((l, i) => l === step.lanes[i])
  const lanes = isWhole ? step.lanes : alive
  const isOn = ({ id, on: own }: Study['parts'][number]) => on.get(id) ?? own
  // What stays as it is stays the same object: those who look at it need not look again.
  return {
    ...study,
    sliders: study.sliders.map((slider) => {
      const value = step.values[slider.name]
      if (value === undefined || value === slider.value) return slider
      return { ...slider, value: Math.min(slider.to, Math.max(slider.from, value)) }
    }),
    frame: step.frame,
    lanes: lanes.length > 0 ? lanes : study.lanes,
    parts: study.parts.every((part) => isOn(part) === part.on)
      ? study.parts
      : study.parts.map((part) => ({ ...part, on: isOn(part) })),
    space: step.space ?? study.space,
    answers: answersIn(study.answers, step.id),
  }
}

const noneIn: Answers = { guesses: {}, signs: {}, earlier: [], steps: {} }
const answersOf = new WeakMap<object, Answers>()
/** What was answered in a step. */
function answersIn({ steps }: Answers, id: string): Answers {
  const own = steps[id]
  if (!own) return noneIn
  const known = answersOf.get(own) ?? { ...own, steps: {} }
  answersOf.set(own, known)
  return known
}

const curvesOf = (study: Study) =>
  new Set(study.lines.flatMap((line) => (isCurveMaker(line) ? [line.name] : [])))

/** A lane with the curves that there still are; null where its own is gone. */
export function living(lane: Lane, study: Study): Lane | null {
  const curves = curvesOf(study)
  if (!curves.has(lane.curve)) return null
  const overlays = lane.overlays.filter((one) => curves.has(one.curve))
  return overlays.length === lane.overlays.length ? lane : { ...lane, overlays }
}

/**
 * What an edit of a study that shows a step comes to: values, frame, lanes, switches and answers that
 * it has changed belong to the step; everything else to the study and so to every step.
 */
export function takenFromStep(study: Study, id: string | null, shown: Study, edited: Study): Study {
  if (edited === shown) return study
  const step = edited.steps.find((one) => one.id === id)
  // None is open, or it has just been taken out.
  if (!step)
    return keptInSteps(study, shown === study ? edited : withOwnState(study, edited, shown))
  const values = { ...step.values }
  const before = new Map(shown.sliders.map((s) => [s.name, s.value]))
  for (const { name, value } of edited.sliders) {
    if (before.get(name) !== value) values[name] = value
  }
  const on = new Map(step.parts.map((part) => [part.id, part]))
  for (const part of edited.parts) {
    const was = shown.parts.find((one) => one.id === part.id)
    if (was?.on !== part.on) on.set(part.id, { id: part.id, letter: part.letter, on: part.on })
  }
  const curves = curvesOf(edited)
  const gone = step.lanes.filter((lane) => !curves.has(lane.curve))
  const changed: Partial<Step> = {
    values,
    parts: [...on.values()],
    ...(edited.frame === shown.frame ? {} : { frame: edited.frame }),
    ...(edited.space === shown.space ? {} : { space: edited.space }),
    ...(edited.lanes === shown.lanes ? {} : { lanes: [...edited.lanes, ...gone].slice(0, 20) }),
  }
  const { steps: _, ...answers } = edited.answers
  const next: Study = {
    ...withOwnState(study, edited, shown),
    answers:
      edited.answers === shown.answers
        ? study.answers
        : { ...study.answers, steps: { ...study.answers.steps, [step.id]: answers } },
    steps: edited.steps.map((one) => (one.id === id ? { ...one, ...changed } : one)),
  }
  return keptInSteps(study, next)
}

/** An edited study with the state that it has where no step is open. */
function withOwnState(study: Study, edited: Study, shown: Study): Study {
  const own = new Map(study.sliders.map((s) => [s.name, s.value]))
  const partOn = new Map(study.parts.map((part) => [part.id, part.on]))
  return {
    ...edited,
    sliders: edited.sliders.map((s) => ({ ...s, value: own.get(s.name) ?? s.value })),
    frame: study.frame,
    space: study.space,
    lanes: edited.lanes === shown.lanes ? study.lanes : ownLanes(study, edited),
    parts: edited.parts.map((part) => ({ ...part, on: partOn.get(part.id) ?? part.on })),
    answers: answersWithin(study.answers, edited.steps),
  }
}

/** Answers without those of steps that are gone. */
function answersWithin(answers: Answers, steps: readonly Step[]): Answers {
  const ids = new Set(steps.map((s) => s.id))
  const kept = Object.entries(answers.steps).filter(([id]) => ids.has(id))
  if (kept.length === Object.keys(answers.steps).length) return answers
  return { ...answers, steps: Object.fromEntries(kept) }
}

/** The study's own lanes after an edit in a step: without curves that went, with those that came. */
function ownLanes(study: Study, edited: Study): Lane[] {
  const known = curvesOf(study)
  const lanes = study.lanes.flatMap((lane) => living(lane, edited) ?? [])
  const fresh = edited.lanes.filter((lane) => !known.has(lane.curve))
  return withOverlays([...lanes, ...fresh], edited, known)
}

/** Lanes with the curves that were laid over the same ones elsewhere and are not among the known. */
const withOverlays = (lanes: Lane[], { lanes: elsewhere }: Study, known: ReadonlySet<string>) =>
  lanes.map((lane) => {
    const same = elsewhere.find((l) => l.curve === lane.curve && l.order === lane.order)
    const fresh = (same?.overlays ?? []).filter(
      (one) =>
        !known.has(one.curve) &&
        !lane.overlays.some((o) => o.curve === one.curve && o.order === one.order),
    )
    return fresh.length === 0
      ? lane
      : { ...lane, overlays: [...lane.overlays, ...fresh].slice(-10) }
  })

/** What is new in a study enters its steps as it is: sliders by their values, curves by their lanes. */
function keptInSteps(before: Study, after: Study): Study {
  if (after.steps.length === 0) return after
  const names = new Set(before.sliders.map((s) => s.name))
  const fresh = after.sliders.filter((s) => !names.has(s.name))
  const lines = new Set(before.lines.map((l) => l.id))
  const came = after.lines.flatMap((l) => (isCurveMaker(l) && !lines.has(l.id) ? [l.name] : []))
  if (fresh.length === 0 && came.length === 0) return after
  const known = curvesOf({ ...after, lines: after.lines.filter((l) => lines.has(l.id)) })
  const steps = after.steps.map((step) => {
    const values = { ...Object.fromEntries(fresh.map((s) => [s.name, s.value])), ...step.values }
    if (came.length === 0) return { ...step, values }
    const opened = after.lanes.filter(
      (lane) => came.includes(lane.curve) && !step.lanes.some((l) => l.curve === lane.curve),
    )
    return { ...step, values, lanes: withOverlays([...step.lanes, ...opened], after, known) }
  })
  return { ...after, steps }
}

/** What a step speaks of and the study has no longer, in words. */
export function goneFrom(step: Step, study: Study): string[] {
  const curves = curvesOf(study)
  const sliders = new Set(study.sliders.map((s) => s.name))
  const parts = new Set(study.parts.map((p) => p.id))
  const lines = new Set(study.lines.map((l) => l.id))
  const plays = step.plays.filter((one) => !sliders.has(one.slider) && !(one.slider in step.values))
  const gone = [
    ...Object.keys(step.values).flatMap((name) => (sliders.has(name) ? [] : [`slider ${name}`])),
    ...plays.map(({ slider }) => `slider ${slider}`),
    ...step.lanes.flatMap((lane) => (curves.has(lane.curve) ? [] : [`lane ${graphOf(lane)}`])),
    ...step.lanes
      .filter((lane) => curves.has(lane.curve))
      .flatMap((lane) => lane.overlays.filter((one) => !curves.has(one.curve)))
      .map((one) => `curve ${graphOf(one)}`),
    ...step.parts.flatMap((part) => (parts.has(part.id) ? [] : [`part ${part.letter}`])),
    ...(Object.keys(step.trails).every((id) => lines.has(id)) ? [] : ['a trail']),
  ]
  return [...new Set(gone)]
}

const graphOf = ({ curve, order }: { curve: string; order: number }) =>
  order < 0 ? `∫${curve}` : curve + '′'.repeat(order)

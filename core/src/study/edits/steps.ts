import { mostSteps, type Step } from '../../vocabulary/members'
import { shownStudy } from '../overlay'
import type { Study } from '../schema'
import { goneFrom, living } from '../steps'
import type { Edit } from './edit'

function freshStepId({ steps, answers }: Study): string {
  const taken = new Set([...steps.map((s) => s.id), ...Object.keys(answers.steps)])
  let n = 1
  while (taken.has(`step${n}`)) n += 1
  return `step${n}`
}

/** The state that a study is in, as a step keeps it. */
const stateOf = (study: Study): Pick<Step, 'values' | 'frame' | 'lanes' | 'parts' | 'space'> => ({
  values: Object.fromEntries(study.sliders.map((s) => [s.name, s.value])),
  frame: study.frame,
  lanes: study.lanes,
  space: study.space,
  parts: study.parts.map(({ id, letter, on }) => ({ id, letter, on })),
})

export type Trailed = Step['trails']

/**
 * Keeps the state that is shown as a step behind the one with the given id, or at the end; `live` are
 * values on their way. Where there are as many as a study holds, nothing changes.
 */
export const keepAsStep =
  (title = '', after: string | null = null, live: Readonly<Record<string, number>> = {}): Edit =>
  (study) => {
    const { steps } = study
    if (steps.length >= mostSteps) return study
    const id = freshStepId(study)
    const named = title.trim().slice(0, 120) || `Step ${steps.length + 1}`
    const step: Step = {
      ...{ id, title: named, question: '', words: '', plays: [], trails: {}, drawn: [] },
      ...stateOf(shownStudy(study, { live })),
    }
    const at = steps.findIndex((s) => s.id === after)
    const place = at < 0 ? steps.length : at + 1
    return { ...study, steps: [...steps.slice(0, place), step, ...steps.slice(place)] }
  }

export const changeStep =
  (
    id: string,
    change: Partial<Pick<Step, 'title' | 'question' | 'words' | 'plays' | 'trails' | 'drawn'>>,
  ): Edit =>
  (study) => ({
    ...study,
    steps: study.steps.map((step) => (step.id === id ? { ...step, ...change } : step)),
  })

/** Takes a step out, with what was answered in it. */
export const removeStep =
  (id: string): Edit =>
  (study) => {
    const { [id]: _, ...answered } = study.answers.steps
    return {
      ...study,
      steps: study.steps.filter((step) => step.id !== id),
      answers: { ...study.answers, steps: answered },
    }
  }

/** Puts a step's like behind it. */
export const duplicateStep =
  (id: string): Edit =>
  (study) => {
    const at = study.steps.findIndex((step) => step.id === id)
    const step = study.steps[at]
    if (!step || study.steps.length >= mostSteps) return study
    const copy = { ...step, id: freshStepId(study), title: `${step.title} again`.slice(0, 120) }
    return {
      ...study,
      steps: [...study.steps.slice(0, at + 1), copy, ...study.steps.slice(at + 1)],
    }
  }

/** Puts a step where another one stands. */
export const moveStep =
  (id: string, to: string): Edit =>
  (study) => {
    const from = study.steps.findIndex((step) => step.id === id)
    const at = study.steps.findIndex((step) => step.id === to)
    if (from < 0 || at < 0 || from === at) return study
    const steps = [...study.steps]
    steps.splice(at, 0, ...steps.splice(from, 1))
    return { ...study, steps }
  }

/** Takes out of a step what it speaks of and is gone. */
export const forgetGone =
  (id: string): Edit =>
  (study) => {
    const step = study.steps.find((one) => one.id === id)
    if (!step || goneFrom(step, study).length === 0) return study
    const sliders = new Set(study.sliders.map((s) => s.name))
    const parts = new Set(study.parts.map((p) => p.id))
    const lines = new Set(study.lines.map((l) => l.id))
    const kept = <T>(all: Record<string, T>, there: ReadonlySet<string>) =>
      Object.fromEntries(Object.entries(all).filter(([key]) => there.has(key)))
    const next: Step = {
      ...step,
      values: kept(step.values, sliders),
      plays: step.plays.filter((one) => sliders.has(one.slider)),
      parts: step.parts.filter((part) => parts.has(part.id)),
      trails: kept(step.trails, lines),
      lanes: step.lanes.flatMap((lane) => living(lane, study) ?? []),
    }
    return { ...study, steps: study.steps.map((one) => (one === step ? next : one)) }
  }

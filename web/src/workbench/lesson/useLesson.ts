import { goneFrom, type Study } from '@yperkine/core'
import { useMemo } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { useStudy } from '../store'

/** The ids of the steps in their order: the same list while only values of a step change. */
export const useStepIds = () => useStudy(useShallow((s) => s.steps.map((step) => step.id)))
export const useStepTitles = () => useStudy(useShallow((s) => s.steps.map((step) => step.title)))

/** What a step says, without its values, which change at every frame of a drag; null where there is none. */
export const useStepWords = (id: string | null) =>
  useStudy(
    useShallow((s) => {
      const step = s.steps.find((one) => one.id === id)
      if (!step) return null
      const { title, question, words, plays, trails, drawn } = step
      return { title, question, words, plays, trails, drawn }
    }),
  )

const none: readonly string[] = []

/** What a step shows no longer; looked for anew only where something has come or gone. */
export const useGone = (id: string): readonly string[] =>
  useStudy(useMemo(() => createGone(id), [id]))

function createGone(id: string) {
  let last: { inputs: readonly unknown[]; gone: readonly string[] } | null = null
  return (study: Study): readonly string[] => {
    const step = study.steps.find((one) => one.id === id)
    if (!step) return none
    const names = study.sliders.map(({ name }) => name).join(' ')
    const values = Object.keys(step.values).join(' ')
    const { lanes, plays, trails } = step
    const inputs = [study.lines, study.parts.length, names, values, lanes, plays, trails]
    if (last?.inputs.every((input, i) => input === inputs[i]) !== true) {
      last = { inputs, gone: goneFrom(step, study) }
    }
    return last.gone
  }
}

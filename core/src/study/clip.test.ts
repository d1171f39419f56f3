import { say, startStudy, type Study } from '../index'
import { studySchema } from './schema'
import { clipOf } from './clip'

function moving(): Study {
  const said = say(startStudy('f(x) = x^2 for -3 <= x <= 3'), 'tangent to f at x = a')
  if ('problem' in said) throw new Error(said.problem)
  return said.study
}
const valuesOf = (study: Study, options: Parameters<typeof clipOf>[1]) => {
  const clip = clipOf(study, options)
  return Array.from({ length: clip.count }, (_, k) => clip.at(k).sliders[0]!.value)
}

describe('frames of a clip', () => {
  const study = moving()
  const { name, from, to, step } = study.sliders[0]!
  const slider = { moves: { slider: name }, seconds: 2, perSecond: 10 } as const

  test('a slider goes from end to end, evenly, on its own steps', () => {
    const values = valuesOf(study, { ...slider, thereAndBack: false })
    expect(values).toHaveLength(20)
    expect([values[0], values.at(-1)]).toEqual([from, to])
    values.forEach((value, k) => {
      expect(Math.abs(value - (from + ((to - from) * k) / 19))).toBeLessThanOrEqual(
        step / 2 + 1e-12,
      )
      expect(Math.abs(value / step - Math.round(value / step))).toBeLessThan(1e-9)
    })
  })

  test('there and back it turns in the middle, and its end leads to its beginning', () => {
    const values = valuesOf(study, { ...slider, thereAndBack: true })
    expect([values[0], values[10]]).toEqual([from, to])
    for (let k = 1; k < 10; k++) expect(values[20 - k]).toBe(values[k])
  })

  test('the study itself is as it was', () => {
    const before = JSON.stringify(study)
    clipOf(study, { ...slider, thereAndBack: true }).at(7)
    expect(JSON.stringify(study)).toBe(before)
  })

  test('what makes no clip is told', () => {
    for (const wrong of [
      { moves: { slider: 'zz' } },
      { moves: 'steps' as const },
      { seconds: 0 },
      { seconds: NaN },
      { seconds: 1e6 },
    ]) {
      expect(() => clipOf(study, { ...slider, thereAndBack: true, ...wrong })).toThrow(RangeError)
    }
  })

  test('the steps of a lesson follow each other, and its sliders glide from one to the next', () => {
    const at = (id: string, value: number): Study['steps'][number] => ({
      ...{ id, title: id, words: '', question: '', values: { [name]: value }, frame: null },
      ...{ lanes: [], parts: [], plays: [], trails: {}, drawn: [] },
    })
    const lesson = studySchema.parse({ ...study, steps: [at('one', from), at('two', to)] })
    const options = { moves: 'steps', seconds: 4, perSecond: 10, thereAndBack: false } as const
    const values = valuesOf(lesson, options)
    expect(values.slice(0, 20)).toEqual(Array.from({ length: 20 }, () => from))
    // It glides for 0.8 s, never backwards, and then stands.
    expect(values.slice(28)).toEqual(Array.from({ length: 12 }, () => to))
    for (let k = 21; k < 28; k++) {
      expect(values[k]!).toBeGreaterThan(values[k - 1]!)
      expect(values[k]!).toBeLessThan(to)
    }
  })
})

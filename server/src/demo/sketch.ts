import { presentFormat, type Study, type StudyInput, studySchema } from '@yperkine/core'

export interface DemoStudy {
  study: Study
  hoursAgo: number
}

type Sketch = Pick<StudyInput, 'title' | 'about' | 'variable'> & Partial<StudyInput>

export const demo = (hoursAgo: number, sketch: Sketch): DemoStudy => ({
  hoursAgo,
  study: studySchema.parse({
    format: presentFormat,
    decimals: 3,
    sliders: [],
    lines: [],
    lanes: [],
    frame: null,
    ...sketch,
  }),
})

export const time = { letter: 't', name: 'time', unit: 'h' }

export const lane = (curve: string, order: number) => ({
  kind: 'lane' as const,
  id: `lane${order + 1}`,
  curve,
  order,
  frame: null,
})

export const inflow = {
  kind: 'curve' as const,
  id: 'line1',
  name: 'q',
  unit: 'ML/h',
  formula: '6 + 4 sin(0.9t) - 0.3t',
  span: { from: '0', to: '10' },
}

/** A curve over a span of time, in a unit. */
export const flow = (name: string, unit: string, formula: string, to: string) => ({
  ...inflow,
  name,
  unit,
  formula,
  span: { from: '0', to },
})

/** Strips with the sliders n and s. */
export const area = (id: string, curve: string, from: string, to: string) => ({
  kind: 'area' as const,
  id,
  curve,
  order: 0,
  span: { from, to },
  count: 'n',
  rule: 'position' as const,
  position: 's',
  seed: 1,
  convergence: false,
  tolerance: '0.001',
})

export const features = (
  id: string,
  curve: string,
  only: 'features' | 'turning points',
  from: string,
  to: string,
) => ({
  kind: 'features' as const,
  id,
  curve,
  order: 0,
  only,
  span: { from, to },
  ends: true,
  labels: true,
})

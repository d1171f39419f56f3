import { createEvaluator, createStudy, offersFor, setSlider, type Study } from '..'

export function made(text: string, withValues: string[] = []): Study {
  const created = createStudy(text, withValues)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}

/** A study with a tangent at a, and with units. */
export function flood(): Study {
  const base = made('q(t) = 6 + 4 sin(0.9t) - 0.3t')
  const withUnits: Study = {
    ...base,
    variable: { letter: 't', name: 'time', unit: 'h' },
    lines: base.lines.map((l) =>
      l.kind === 'curve' ? { ...l, unit: 'ML/h', span: { from: '0', to: '10' } } : l,
    ),
  }
  const added = offersFor('tangent', withUnits, null)[0]!.edit(withUnits)
  return setSlider('a', 4.2)(added)
}

export const evaluated = (study: Study) => createEvaluator()(study)

export const lineOf = (study: Study, kind: string) => study.lines.find((l) => l.kind === kind)!

export const resultOf = (study: Study, kind: string) =>
  evaluated(study).lines.get(lineOf(study, kind).id)!

export const readout = (study: Study, kind: string, label: string) =>
  resultOf(study, kind).readouts.find((r) => r.label === label)

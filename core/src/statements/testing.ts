import {
  createEvaluator,
  createStudy,
  type LineResult,
  offersFor,
  type Statement,
  type Study,
} from '..'

export function made(text: string): Study {
  const created = createStudy(text)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}

/** Says what to add and takes the first offer, as a person does. */
export function say(study: Study, words: string): Study {
  const offer = offersFor(words, study, null)[0]
  if (!offer) throw new Error(`nothing is offered for ${words}`)
  return offer.edit(study)
}

export function last(study: Study): { line: Statement; result: LineResult; sentence: string } {
  const evaluation = createEvaluator({ patience: Infinity })(study)
  const line = study.lines.at(-1)!
  const phrases = evaluation.sentences.get(line.id)!
  return {
    line,
    result: evaluation.lines.get(line.id)!,
    sentence: phrases.map((p) => p.text).join(''),
  }
}

export const number = (result: LineResult, label: string) =>
  result.readouts.find((r) => r.label === label)?.value

export const text = (result: LineResult, label: string) =>
  result.readouts.find((r) => r.label === label)?.text

export const inflow = made('q(t) = 6 + 4 sin(0.9t) - 0.3t')

export const flood: Study = {
  ...inflow,
  variable: { letter: 't', name: 'time', unit: 'h' },
  lines: inflow.lines.map((l) =>
    l.kind === 'curve' ? { ...l, unit: 'ML/h', span: { from: '0', to: '10' } } : l,
  ),
}

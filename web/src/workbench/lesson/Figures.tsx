import { useRef } from 'react'
import { setSteadyText } from '../../parts/setText'
import { useWorkbench } from '../store'
import { useReadoutPainting } from '../working/useReadoutPainting'

/** So many lines tell their first result. */
const most = 5

/** The first result of each line that is shown: the working as a class sees it. */
export function Figures() {
  const ids = useWorkbench(({ evaluation }) =>
    evaluation.study.lines
      .filter(({ id }) => !evaluation.off.has(id) && evaluation.lines.get(id)?.readouts.length)
      .map(({ id }) => id)
      .slice(0, most)
      .join('\n'),
  )
  if (ids === '') return null
  return (
    <ul
      aria-label="Results"
      className="ml-auto grid max-w-[64vw] shrink-0 gap-1 text-right max-sm:max-w-full"
    >
      {ids.split('\n').map((id) => (
        <Figure key={id} id={id} />
      ))}
    </ul>
  )
}

function Figure({ id }: { id: string }) {
  const output = useRef<HTMLOutputElement>(null)
  const figures = useRef<HTMLSpanElement>(null)
  const label = useWorkbench((s) => s.evaluation.lines.get(id)?.readouts[0]?.label ?? '')
  const sentence = useWorkbench((s) =>
    (s.evaluation.sentences.get(id) ?? []).map((p) => p.text).join(''),
  )
  useReadoutPainting(id, 0, ({ text, value }) => {
    setSteadyText(figures.current!, text)
    const { dataset } = output.current!
    if (value === undefined) delete dataset.value
    else dataset.value = String(value)
  })
  return (
    <li className="flex min-w-0 flex-wrap items-baseline justify-end gap-x-3">
      <span className="max-w-[36vw] truncate font-serif text-[calc(14px*var(--type))] text-quiet">
        {sentence}
      </span>
      <span className="min-w-0 text-[calc(14px*var(--type))]">
        {label}{' '}
        <output
          ref={output}
          aria-label={label}
          aria-live="off"
          data-figures
          className="text-[calc(18px*var(--type))] font-semibold text-rust"
        >
          <span ref={figures} className="steady">
            <span />
          </span>
        </output>
      </span>
    </li>
  )
}

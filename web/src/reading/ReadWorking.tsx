import {
  isFormulaLine,
  kindOf,
  type LineResult,
  type Part,
  type Phrase,
  rowsOf,
  sentenceText,
  type Statement,
} from '@yperkine/core'
import { memo, type ReactNode, useMemo } from 'react'
import { keepTogether } from '../parts/keepTogether'
import { useStudy, useWorkbench } from '../workbench/store'
import { FurtherResults, Readouts } from '../workbench/working/LineResults'
import { PartSwitch } from '../workbench/working/PartHeading'
import { PendingWork } from '../workbench/working/PendingWork'
import { LineSample, PhraseView } from '../workbench/working/Sentence'
import { useSaid } from '../workbench/working/useSaid'
import { useTint } from '../workbench/working/useTint'

/** The study in sentences with their results, as they are read; what is not shown now is left out. */
export function ReadWorking() {
  const lines = useStudy((s) => s.lines)
  const parts = useStudy((s) => s.parts)
  const announcement = useWorkbench((s) => s.announcement)
  const rows = useMemo(() => rowsOf({ lines, parts }), [lines, parts])
  return (
    <section
      aria-label="Working"
      className="flex min-h-0 w-[404px] shrink-0 flex-col border-l border-rule bg-page [contain:layout] max-lg:w-full max-lg:border-t max-lg:border-l-0"
    >
      <h2 className="flex h-[46px] shrink-0 items-center border-b border-rule px-[18px] font-serif text-[calc(18px*var(--type))] font-semibold">
        Working
      </h2>
      <ol className="min-h-0 flex-1 overflow-y-auto will-change-transform">
        {rows.map((row) => {
          if (row.kind === 'line') return <ReadLine key={row.key} line={row.line} />
          return row.kind === 'part' && <ReadPart key={row.key} part={row.part} />
        })}
        {lines.length === 0 && (
          <li className="px-[18px] py-4 text-quiet">Nothing stands here yet.</li>
        )}
      </ol>
      <div aria-live="polite" className="sr-only">
        {announcement}
      </div>
    </section>
  )
}

const ReadPart = ({ part: { id, letter, title, on } }: { part: Part }) => (
  <li className="flex min-h-11 items-center gap-2 border-b border-rule bg-paper px-[18px]">
    <h3 className="min-w-0 flex-1 font-serif text-[calc(17px*var(--type))] font-semibold">
      {title || `Part ${letter}`}
    </h3>
    <PartSwitch id={id} label={title || `Part ${letter}`} on={on} />
  </li>
)

const ReadLine = memo(function ReadLine({ line }: { line: Statement }) {
  const phrases = useWorkbench((s) => s.evaluation.sentences.get(line.id))
  const off = useWorkbench((s) => s.evaluation.off.has(line.id))
  // What stands on the picture alone, such as a note, is seen there.
  const says = useWorkbench((s) => {
    const result = s.evaluation.lines.get(line.id)
    return kindOf(line).drawn?.stands?.(line) != null || (result ? saysSomething(result) : false)
  })
  if (!phrases || off || !says) return null
  return (
    <Line line={line} phrases={phrases}>
      <Readouts id={line.id} />
    </Line>
  )
})

const saysSomething = (result: LineResult) =>
  result.pending === true ||
  result.verdict !== undefined ||
  result.signs !== undefined ||
  [result.readouts, result.problems, result.notes, result.tables, result.charts].some(
    (all) => all !== undefined && all.length > 0,
  ) ||
  [result.conclusions, result.space].some((all) => all !== undefined && all.length > 0)

interface LineProps {
  line: Statement
  phrases: readonly Phrase[]
  /** Its numbers. */
  children: ReactNode
}

function Line({ line, phrases, children }: LineProps) {
  const { problems, notes } = useSaid(line)
  const tint = useTint(line)
  const unreadable = problems.find((p) => p.at && isFormulaLine(line))
  const sentence = sentenceText(phrases)
  return (
    <li
      aria-label={sentence}
      className={`border-b [contain:layout] border-rule px-[18px] py-2.5 ${tint}`}
    >
      <div className="font-serif text-[calc(17px*var(--type))] leading-[1.45]">
        <LineSample line={line} />
        {phrases.map((phrase, i) => (
          <PhraseView key={i} line={line} phrase={phrase} problem={unreadable} />
        ))}
      </div>
      {problems.map(({ message }) => (
        <p key={message} className="mt-1 text-[calc(14px*var(--type))] text-brick">
          {keepTogether(message)}
        </p>
      ))}
      {children}
      <PendingWork id={line.id} name={sentence} />
      {notes.map((note) => (
        <p key={note} className="mt-1 text-[calc(14px*var(--type))] text-quiet">
          {keepTogether(note)}
        </p>
      ))}
      <FurtherResults line={line} />
    </li>
  )
}

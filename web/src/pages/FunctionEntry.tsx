import {
  type Begun,
  begin,
  isFormulaLine,
  isOpen,
  isSurfaceMaker,
  nameToLatex,
  parseDefinition,
  parseFormula,
  type Statement,
  type Study,
  toLatex,
  typedSurface,
} from '@yperkine/core'
import { type ReactNode, useEffect, useEffectEvent, useMemo, useState } from 'react'
import { FormulaEditor } from '../parts/FormulaEditor'
import { Maths } from '../parts/Maths'
import { FieldFrame, fieldHint } from './FieldFrame'

interface Props {
  /** What was typed before this field stood, and whether it was being typed into. */
  early: { text: string; focused: boolean; entered: boolean }
  onCreate: (study: Study, left: string) => void
}

/** The field as it stands once it can be read what is typed: typeset, with what is wrong underlined. */
export function FunctionEntry({ early, onCreate }: Props) {
  const [text, setText] = useState(early.text)
  const [tried, setTried] = useState(false)
  // A text that is put in place of what was typed begins the field anew.
  const [start, setStart] = useState({ text: early.text, focused: early.focused })
  const begun = useMemo(() => (text.trim() === '' ? null : begin(text)), [text])
  const made = begun?.created ?? null
  const typed = parseDefinition(text)
  // What asks for more than a curve stands by itself.
  const isSentence = begun !== null && begun.added.length + begun.left.length > 0
  const problems = made && !made.ok ? made.problems : []
  const missing = [...new Set(problems.flatMap((p) => (p.missing ? [p.missing] : [])))]
  const onlyMissing = missing.length > 0 && problems.every((p) => p.missing)
  const empty = tried && text.trim() === ''
  const open = (withValues: string[] = []) => {
    setTried(true)
    if (text.trim() === '') return
    const { created, left } = begin(text, withValues)
    if (created.ok) onCreate(created.study, left.join('. '))
  }
  const openEarly = useEffectEvent(() => {
    if (early.entered) open()
  })
  useEffect(() => openEarly(), [])

  return (
    <div className="mt-4">
      <FieldFrame
        before={isSentence ? 'none' : typed ? 'let' : 'name'}
        canOpen={made?.ok === true}
        onOpen={() => open()}
      >
        <FormulaEditor
          key={start.text}
          label="Function"
          initial={start.text}
          autoFocus={start.focused}
          selectAll={false}
          hint={fieldHint}
          underlines={problems}
          describedBy="function-problems"
          onChange={(next) => {
            setText(next)
            setTried(false)
          }}
          onEnter={() => open()}
        />
      </FieldFrame>
      <div id="function-problems" className="min-h-7 px-5 pt-1">
        {empty && (
          <p className="text-brick">There is no formula yet: type one, such as x^2 - 3x.</p>
        )}
        {begun && made?.ok && <Preview begun={begun} />}
        {problems.map((problem) => (
          <p key={`${problem.from} ${problem.message}`} className="text-brick">
            {problem.message}
            {problem.fix && <span className="text-quiet"> · {problem.fix}</span>}
            {[
              ...(problem.replacement ? [problem.replacement] : []),
              ...(problem.choices ?? []),
            ].map((replacement) => (
              <button
                key={replacement}
                type="button"
                className="pill ml-2 text-ink"
                onClick={() => {
                  const { from, to } = problem
                  const next = text.slice(0, from) + replacement + text.slice(to)
                  setText(next)
                  setStart({ text: next, focused: true })
                }}
              >
                Use {replacement}
              </button>
            ))}
          </p>
        ))}
        {onlyMissing && (
          <button type="button" className="button mt-1" onClick={() => open(missing)}>
            Give a value to {missing.join(', ')} and open
          </button>
        )}
      </div>
    </div>
  )
}

/** The study as it will open: its formula, what was asked about it, and what was not understood. */
function Preview({ begun: { created, added, left } }: { begun: Begun }) {
  if (!created.ok) return null
  const { study, hints } = created
  const line = study.lines[0]!
  const typed = headAndTail(study, line)
  if (!typed) return null
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-4 text-[calc(17px*var(--type))]">
        <Maths latex={typed.latex} />
        {typed.tail}
        {hints.map((hint) => (
          <span key={hint.from} className="text-[calc(15px*var(--type))] text-quiet">
            {hint.message}
          </span>
        ))}
      </p>
      {added.length > 0 && (
        <ul className="font-serif text-[calc(16px*var(--type))]" aria-label="Also opened with">
          {added.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {left.map((words) => (
        <p key={words} className="text-quiet">
          Not understood:{' '}
          <span className="underline decoration-brick decoration-wavy underline-offset-4">
            {words}
          </span>
        </p>
      ))}
    </>
  )
}

/** What stands first in a new study, typeset, and the span or rectangle behind it. */
function headAndTail(study: Study, line: Statement): { latex: string; tail: ReactNode } | null {
  if (isSurfaceMaker(line)) {
    const { parsed, head } = typedSurface(study, line, line.formula)
    if (!parsed.ok) return null
    const sides = [line.firstSpan, line.secondSpan].map(({ from, to }) => `[${from}, ${to}]`)
    return {
      latex: `${head} = ${toLatex(parsed.tree)}`,
      tail: <span>over {sides.join(' × ')}</span>,
    }
  }
  if (!isFormulaLine(line)) return null
  const { letter } = study.variable
  const names = study.sliders.map((slider) => slider.name)
  const parsed = parseFormula(line.formula, { variable: letter, names })
  if (!parsed.ok) return null
  return {
    latex: `${nameToLatex(line.name)}(${nameToLatex(letter)}) = ${toLatex(parsed.tree)}`,
    // A span that nobody has said is not worth a word.
    tail: isOpen(line) ? null : (
      <span>
        for {line.span.from} ≤ <i>{letter}</i> ≤ {line.span.to}
      </span>
    ),
  }
}

import {
  type Begun,
  begin,
  isFormulaLine,
  isOpen,
  nameToLatex,
  parseDefinition,
  parseFormula,
  toLatex,
} from '@yperkine/core'
import { useMemo, useState } from 'react'
import { FormulaField } from '../parts/FormulaField'
import { Maths } from '../parts/Maths'

interface Props {
  onCreate: (text: string, withValues: string[]) => void
}

/** "Let f(x) = …": what is typed here becomes a study. */
export function FunctionField({ onCreate }: Props) {
  const [text, setText] = useState('')
  const [tried, setTried] = useState(false)
  // A text that is put in place of what was typed begins the field anew.
  const [initial, setInitial] = useState('')
  const begun = useMemo(() => (text.trim() === '' ? null : begin(text)), [text])
  const made = begun?.created ?? null
  const typed = parseDefinition(text)
  // What asks for more than a curve stands by itself.
  const isSentence = begun !== null && begun.added.length + begun.left.length > 0
  const problems = made && !made.ok ? made.problems : []
  const missing = [...new Set(problems.flatMap((p) => (p.missing ? [p.missing] : [])))]
  const onlyMissing = missing.length > 0 && problems.every((p) => p.missing)
  const empty = tried && text.trim() === ''

  return (
    <div className="mt-4">
      <div className="flex min-h-[58px] items-center gap-3 rounded-[10px] border border-rule bg-page px-5 font-serif text-[calc(19px*var(--type))] focus-within:border-edge">
        {!isSentence && <span>Let</span>}
        {!typed && !isSentence && (
          <span className="flex gap-3">
            <i>f(x)</i>
            <span>=</span>
          </span>
        )}
        <FormulaField
          key={initial}
          label="Function"
          initial={initial}
          hint="type a function, and start from its graph…"
          underlines={problems}
          describedBy="function-problems"
          onChange={(next) => {
            setText(next)
            setTried(false)
          }}
          onEnter={() => {
            setTried(true)
            if (made?.ok) onCreate(text, [])
          }}
        />
        <button
          type="button"
          className="button font-sans text-[calc(15px*var(--type))]"
          disabled={!made?.ok}
          onClick={() => onCreate(text, [])}
        >
          Open
        </button>
      </div>
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
                  setInitial(next)
                }}
              >
                Use {replacement}
              </button>
            ))}
          </p>
        ))}
        {onlyMissing && (
          <button type="button" className="button mt-1" onClick={() => onCreate(text, missing)}>
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
  if (!isFormulaLine(line)) return null
  const { letter } = study.variable
  const names = study.sliders.map((slider) => slider.name)
  const parsed = parseFormula(line.formula, { variable: letter, names })
  if (!parsed.ok) return null
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-4 text-[calc(17px*var(--type))]">
        <Maths
          latex={`${nameToLatex(line.name)}(${nameToLatex(letter)}) = ${toLatex(parsed.tree)}`}
        />
        {/* A span that nobody has said is not worth a word. */}
        {!isOpen(line) && (
          <span>
            for {line.span.from} ≤ <i>{letter}</i> ≤ {line.span.to}
          </span>
        )}
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

import {
  editSlot,
  type LineProblem,
  nameToLatex,
  parseDefinition,
  parseFormula,
  type Phrase,
  readingOf,
  type Statement,
  toLatex,
} from '@yperkine/core'
import { useMemo, useRef, useState } from 'react'
import { EditableText } from '../parts/EditableText'
import { FormulaField } from '../parts/FormulaField'
import { Maths } from '../parts/Maths'
import { useWorkbenchStore } from './store'

type SlotPhrase = Extract<Phrase, { slot: string }>

const editorNames: Record<SlotPhrase['slot'], string> = {
  formula: 'Formula',
  domain: 'Span',
  place: 'Place',
  curve: 'Curve',
}

interface Props {
  line: Statement
  phrase: SlotPhrase
  /** Set where what the slot holds cannot be read. */
  problem?: LineProblem | undefined
}

/** A slot of a sentence: a button named by what it holds, which opens a field in its place. */
export function Slot({ line, phrase, problem }: Props) {
  const store = useWorkbenchStore()
  const button = useRef<HTMLButtonElement>(null)
  const [open, setOpen] = useState(false)
  const close = () => {
    setOpen(false)
    requestAnimationFrame(() => button.current?.focus())
  }
  const put = (text: string) => {
    const result = editSlot(store.getState().history.present, line, phrase.slot, text)
    if (result.ok) store.getState().apply(result.edit)
  }
  if (open && phrase.slot === 'formula') {
    return <FormulaSlot line={line} source={phrase.source} onPut={put} onClose={close} />
  }
  if (open) {
    return (
      <EditableText
        label={editorNames[phrase.slot]}
        value={phrase.source}
        className={`font-serif text-[calc(16px*var(--type))] ${phrase.slot === 'domain' ? 'w-44' : 'w-28'}`}
        check={(text) => {
          const result = editSlot(store.getState().history.present, line, phrase.slot, text)
          return result.ok ? null : result.message
        }}
        onCommit={put}
        onClose={close}
      />
    )
  }
  return (
    <button
      ref={button}
      type="button"
      aria-label={phrase.text}
      className={`slot slot-${phrase.slot}`}
      onClick={() => setOpen(true)}
    >
      {problem?.at ? (
        <Underlined text={phrase.source} problem={problem} line={line} />
      ) : (
        <Maths latex={phrase.latex} />
      )}
    </button>
  )
}

/** A formula as typed, with the stretch underlined that cannot be read. */
function Underlined({
  text,
  problem,
  line,
}: {
  text: string
  problem: LineProblem
  line: Statement
}) {
  const shift = line.kind === 'curve' ? text.length - line.formula.length : 0
  const from = shift + Math.min(problem.at!.from, Math.max(0, text.length - shift - 1))
  const to = Math.max(from + 1, shift + problem.at!.to)
  return (
    <span className="break-words">
      {text.slice(0, from)}
      <span className="formula-problem">{text.slice(from, to) || ' '}</span>
      {text.slice(to)}
    </span>
  )
}

interface FormulaSlotProps {
  line: Statement
  source: string
  onPut: (text: string) => void
  onClose: () => void
}

/** The field for a curve's formula, with its typeset preview. */
function FormulaSlot({ line, source, onPut, onClose }: FormulaSlotProps) {
  const store = useWorkbenchStore()
  const [text, setText] = useState(source)
  const [refusal, setRefusal] = useState<string | null>(null)
  const done = useRef(false)
  const study = store.getState().history.present
  const typed = useMemo(() => {
    const definition = parseDefinition(text)
    const body = definition ? definition.body : text
    const reading = readingOf(study)
    const letter = definition?.variable ?? reading.variable
    return {
      shift: text.length - body.length,
      parsed: parseFormula(body, { ...reading, variable: letter }),
      head: `${nameToLatex(definition?.name ?? (line.kind === 'curve' ? line.name : 'f'))}(${nameToLatex(letter)})`,
    }
  }, [text, study, line])
  const problems = typed.parsed.ok ? [] : typed.parsed.problems
  const underlines = useMemo(
    () =>
      (typed.parsed.ok ? [] : typed.parsed.problems).map(({ from, to }) => ({
        from: from + typed.shift,
        to: to + typed.shift,
      })),
    [typed],
  )
  const commit = (leaving: boolean) => {
    if (done.current) return
    const result = editSlot(store.getState().history.present, line, 'formula', text)
    if (!result.ok && !leaving) {
      setRefusal(result.message)
      return
    }
    done.current = true
    if (result.ok && text !== source) onPut(text)
    onClose()
  }
  return (
    <span className="block font-serif">
      <span className="field flex items-center">
        <FormulaField
          label="Formula"
          initial={source}
          autoFocus
          underlines={underlines}
          onChange={(next) => {
            setText(next)
            setRefusal(null)
          }}
          onEnter={() => commit(false)}
          onEscape={() => {
            done.current = true
            onClose()
          }}
          onLeave={() => commit(true)}
        />
      </span>
      <span className="block min-h-7 pt-1 text-[calc(15px*var(--type))]">
        {typed.parsed.ok && !refusal && (
          <Maths latex={`${typed.head} = ${toLatex(typed.parsed.tree)}`} />
        )}
        {refusal && (
          <span role="alert" className="font-sans text-[calc(14px*var(--type))] text-brick">
            {refusal}
          </span>
        )}
        {problems.map((p) => (
          <span
            key={`${p.from} ${p.message}`}
            className="block font-sans text-[calc(14px*var(--type))] text-brick"
          >
            {p.message}
            {p.fix && <span className="text-quiet"> · {p.fix}</span>}
          </span>
        ))}
      </span>
    </span>
  )
}

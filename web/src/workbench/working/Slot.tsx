import {
  editSlot,
  isFormulaLine,
  type LineProblem,
  type Phrase,
  type Statement,
} from '@yperkine/core'
import { useRef, useState } from 'react'
import { EditableText } from '../../parts/EditableText'
import { Maths } from '../../parts/Maths'
import { FormulaSlot } from './FormulaSlot'
import { useWorkbenchStore } from '../store'

type SlotPhrase = Extract<Phrase, { slot: string }>

const editorNames: Record<SlotPhrase['slot'], string> = {
  formula: 'Formula',
  domain: 'Span',
  place: 'Place',
  curve: 'Curve',
  span: 'Span',
  target: 'Equal to',
  number: 'Number',
  choice: 'Choice',
  words: 'Words',
}

/** More signs than these may not fit the panel's width, and scroll. */
export const mostShort = 16

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
    const result = editSlot(store.getState().shown, line, phrase, text)
    if (result.ok) store.getState().apply(result.edit)
  }
  if (phrase.choices) {
    return (
      <select
        aria-label={phrase.text}
        className="slot bg-transparent font-serif [field-sizing:content]"
        value={phrase.source}
        onChange={(event) => put(event.target.value)}
      >
        {phrase.choices.map(({ value, text }) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </select>
    )
  }
  if (open && phrase.slot === 'formula') {
    return <FormulaSlot line={line} source={phrase.source} onPut={put} onClose={close} />
  }
  if (open) {
    return (
      <EditableText
        label={editorNames[phrase.slot]}
        value={phrase.source}
        className={`font-serif text-[calc(16px*var(--type))] ${phrase.slot === 'words' ? 'w-80' : ['domain', 'span', 'target'].includes(phrase.slot) ? 'w-44' : 'w-28'}`}
        check={(text) => {
          const result = editSlot(store.getState().shown, line, phrase, text)
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
      className={`slot slot-${phrase.slot} ${phrase.text.length > mostShort && phrase.slot !== 'words' ? 'slot-long' : ''}`}
      onClick={() => setOpen(true)}
    >
      {problem?.at ? (
        <Underlined text={phrase.source} problem={problem} line={line} />
      ) : phrase.slot === 'words' ? (
        <span className={phrase.source === '' ? 'text-quiet' : 'break-words'}>{phrase.text}</span>
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
  const shift = isFormulaLine(line) ? text.length - line.formula.length : 0
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

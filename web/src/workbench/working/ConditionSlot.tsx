import {
  conditionProblems,
  setCondition,
  type ShowingProblem,
  type Statement,
  withoutGoneParts,
} from '@yperkine/core'
import { useMemo, useRef, useState } from 'react'
import { FormulaField } from '../../parts/FormulaField'
import { useWorkbench, useWorkbenchStore } from '../store'

interface Props {
  line: Statement
  editing: boolean
  onEdit: (editing: boolean) => void
}

/** Under which condition a line is shown, in a slot under its sentence, and whether it is now. */
export function ConditionSlot({ line, editing, onEdit }: Props) {
  const store = useWorkbenchStore()
  const { apply } = store.getState()
  const showing = useWorkbench((s) => s.evaluation.showing.get(line.id))
  const slot = useRef<HTMLButtonElement>(null)
  if (editing) {
    return (
      <ConditionField
        text={showing?.when ?? ''}
        onPut={(text) => apply(setCondition(line.id, text))}
        onClose={() => {
          onEdit(false)
          requestAnimationFrame(() => slot.current?.focus())
        }}
      />
    )
  }
  if (!showing || (showing.when === null && showing.shown)) return null
  const { when, problems, note, by } = showing
  const drop = () => {
    const left = withoutGoneParts(line.when ?? '', store.getState().shown)
    apply(setCondition(line.id, left ?? ''))
  }
  return (
    <div className="mt-0.5">
      <p className="font-serif text-[calc(15px*var(--type))]">
        {when !== null && (
          <>
            <span className="text-quiet">shown while </span>
            <button ref={slot} type="button" className="slot" onClick={() => onEdit(true)}>
              <Underlined text={when} problems={problems} />
            </button>
          </>
        )}
        {by !== null && (
          <span className="font-sans text-[calc(14px*var(--type))] text-quiet">
            {when === null ? '' : ' · '}
            {by === 'part' ? 'its part is off' : 'not shown now'}
          </span>
        )}
      </p>
      {problems.map(({ message, fix, gone }) => (
        <p key={message} role="alert" className="text-[calc(14px*var(--type))] text-brick">
          {message}
          {gone ? (
            <button type="button" className="pill ml-2 text-ink" onClick={drop}>
              Drop it
            </button>
          ) : (
            fix && <span className="text-quiet"> · {fix}</span>
          )}
        </p>
      ))}
      {note !== null && <p className="text-[calc(14px*var(--type))] text-quiet">{note}</p>}
    </div>
  )
}

/** A condition with what is wrong in it underlined. */
function Underlined({ text, problems }: { text: string; problems: readonly ShowingProblem[] }) {
  const [first] = problems.filter(({ piece }) => piece !== '' && text.includes(piece))
  if (!first) return text
  const at = text.indexOf(first.piece)
  return (
    <>
      {text.slice(0, at)}
      <span className="formula-problem">{first.piece}</span>
      {text.slice(at + first.piece.length)}
    </>
  )
}

interface FieldProps {
  text: string
  onPut: (text: string) => void
  onClose: () => void
}

/** The most that a condition holds. */
const longest = 400

/** The field for a condition; what cannot be read is underlined while it is typed, and kept as typed. */
function ConditionField({ text: initial, onPut, onClose }: FieldProps) {
  const store = useWorkbenchStore()
  const [text, setText] = useState(initial)
  const done = useRef(false)
  const problems = useMemo(() => {
    if (text.length > longest) {
      const message = `a condition has at most ${longest} characters`
      return [{ message, from: longest, to: text.length }]
    }
    return text.trim() === '' ? [] : conditionProblems(text, store.getState().shown)
  }, [text, store])
  const close = (put: boolean) => {
    if (done.current || (put && text.length > longest)) return
    done.current = true
    if (put && text.trim() !== initial) onPut(text.trim())
    onClose()
  }
  return (
    <div
      className="mt-0.5 font-serif text-[calc(15px*var(--type))]"
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) close(true)
      }}
    >
      <span className="flex items-center gap-2">
        <span className="text-quiet">shown while</span>
        <span className="field flex min-w-0 flex-1 items-center">
          <FormulaField
            label="Shown while"
            hint="1 ≤ a ≤ 4 and part A"
            initial={initial}
            autoFocus
            underlines={problems}
            onChange={setText}
            onEnter={() => close(true)}
            onEscape={() => close(false)}
          />
        </span>
      </span>
      {problems.map(({ message, fix }: { message: string; fix?: string }) => (
        <p
          key={message}
          role="alert"
          className="font-sans text-[calc(14px*var(--type))] text-brick"
        >
          {message}
          {fix && <span className="text-quiet"> · {fix}</span>}
        </p>
      ))}
    </div>
  )
}

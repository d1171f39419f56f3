import {
  cutSpan,
  editSlot,
  isFormulaLine,
  isSurfaceMaker,
  joinPieces,
  nameToLatex,
  parseDefinition,
  type PieceRow,
  readFormula,
  readingOf,
  rowAt,
  splitPieces,
  type Statement,
  toLatex,
  typedSurface,
} from '@yperkine/core'
import { useMemo, useRef, useState } from 'react'
import { FormulaField } from '../../parts/FormulaField'
import { Maths } from '../../parts/Maths'
import { PieceRows } from './PieceRows'
import { useWorkbenchStore } from '../store'

interface FormulaSlotProps {
  line: Statement
  source: string
  onPut: (text: string) => void
  onClose: () => void
}

/** The field for a curve's formula, or rows where it comes in pieces, with its typeset preview. */
export function FormulaSlot({ line, source, onPut, onClose }: FormulaSlotProps) {
  const store = useWorkbenchStore()
  const [text, setText] = useState(source)
  const [rows, setRows] = useState(() => (isSurfaceMaker(line) ? null : rowsOf(bodyOf(source))))
  const [refusal, setRefusal] = useState<string | null>(null)
  const done = useRef(false)
  const study = store.getState().shown
  const ofSurface = isSurfaceMaker(line)
  const typed = useMemo(() => {
    if (isSurfaceMaker(line)) return typedSurface(study, line, text)
    // A span may stand behind it, and goes to the line.
    const { formula } = cutSpan(text)
    const definition = parseDefinition(formula)
    const body = bodyOf(formula)
    const reading = readingOf(study)
    const letter = definition?.variable ?? reading.variable
    return {
      shift: formula.length - body.length,
      parsed: readFormula(body, { ...reading, variable: letter }),
      head: `${nameToLatex(definition?.name ?? (isFormulaLine(line) ? line.name : 'f'))}(${nameToLatex(letter)})`,
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
  const change = (next: string) => {
    setText(next)
    setRefusal(null)
  }
  const changeRows = (next: PieceRow[]) => {
    setRows(next)
    change(text.slice(0, text.length - bodyOf(text).length) + joinPieces(next))
  }
  const giveUp = () => {
    done.current = true
    onClose()
  }
  const commit = (leaving: boolean) => {
    if (done.current) return
    const result = editSlot(
      store.getState().shown,
      line,
      { slot: 'formula', field: 'formula' },
      text,
    )
    if (!result.ok && !leaving) {
      setRefusal(result.message)
      return
    }
    done.current = true
    if (result.ok && text !== source) onPut(text)
    onClose()
  }
  return (
    <span
      className="block font-serif"
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) commit(true)
      }}
    >
      {rows ? (
        <PieceRows
          rows={rows}
          wrong={problems[0] ? rowAt(rows, problems[0].from) : null}
          onChange={changeRows}
          onEnter={() => commit(false)}
          onEscape={giveUp}
          onJoin={() => setRows(null)}
        />
      ) : (
        <span className="flex flex-wrap items-center gap-2">
          <span className="field flex min-w-48 flex-1 items-center">
            <FormulaField
              label="Formula"
              initial={text}
              autoFocus
              underlines={underlines}
              onChange={change}
              onEnter={() => commit(false)}
              onEscape={giveUp}
            />
          </span>
          <button
            type="button"
            className="pill font-sans"
            hidden={ofSurface}
            onClick={() => changeRows([...splitPieces(bodyOf(text)), { body: '', when: '' }])}
          >
            In pieces
          </button>
        </span>
      )}
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

const bodyOf = (text: string) => parseDefinition(text)?.body.trim() ?? text

/** The rows of a formula that is in pieces; null for one that is not. */
function rowsOf(body: string): PieceRow[] | null {
  const rows = splitPieces(body)
  return rows.some((row) => row.when !== '') ? rows : null
}

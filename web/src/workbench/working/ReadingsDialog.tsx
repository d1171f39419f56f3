import { addReadings, readCsv, readingsProblem } from '@yperkine/core'
import { FileSpreadsheet } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { Panel } from '../../parts/Panel'
import { useWorkbenchStore } from '../store'

/** Opens a place for measured readings: pasted, or from a file. */
export function ReadingsButton() {
  /** What is put in to begin with; null while it is closed. */
  const [begun, setBegun] = useState<string | null>(null)
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text/plain') ?? ''
      const { target } = event
      const isField =
        target instanceof HTMLElement &&
        (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
      if (isField || !isTable(text)) return
      event.preventDefault()
      setBegun(text)
    }
    window.addEventListener('paste', onPaste)
    return () => window.removeEventListener('paste', onPaste)
  }, [])
  return (
    <>
      <button
        type="button"
        aria-label="Readings from a file"
        title="Readings from a file"
        className="grid size-8 shrink-0 place-items-center rounded-md text-quiet hover:text-ink"
        onClick={() => setBegun('')}
      >
        <FileSpreadsheet size={18} aria-hidden />
      </button>
      {begun !== null && <ReadingsDialog begun={begun} onClose={() => setBegun(null)} />}
    </>
  )
}

/** Whether what is pasted on the page are rows of numbers, as of a spreadsheet. */
function isTable(text: string): boolean {
  const { columns, rows } = readCsv(text)
  return columns.length >= 2 && rows.length >= 2
}

interface Props {
  /** The text that it opens with. */
  begun: string
  onClose: () => void
}

function ReadingsDialog({ begun, onClose }: Props) {
  const store = useWorkbenchStore()
  const { letter } = store.getState().shown.variable
  const [text, setText] = useState(begun)
  const [columns, setColumns] = useState({ x: 0, y: 1 })
  const table = useMemo(() => (text.trim() === '' ? null : readCsv(text)), [text])
  const width = table?.columns.length ?? 0
  const [x, y] = [Math.min(columns.x, width - 1), Math.min(columns.y, width - 1)]
  const points = useMemo(
    () =>
      (table?.rows ?? [])
        .map((row): [number, number] => [row[x]!, row[y]!])
        .sort(([a], [b]) => a - b),
    [table, x, y],
  )
  const problem =
    table === null
      ? null
      : width < 2
        ? 'readings need two columns: places, and what was read there'
        : readingsProblem(
            points.map(([a]) => a),
            points.map(([, b]) => b),
          )
  const add = () => {
    const { apply, announce, shown } = store.getState()
    const headings = table?.named ? { x: table.columns[x]!, y: table.columns[y]! } : null
    const { name, edit } = addReadings(shown, points, headings)
    apply(edit)
    announce(`Added ${points.length} readings as ${name}`)
    onClose()
  }
  const choose = (which: 'x' | 'y', label: string) => (
    <label className="flex items-center gap-2">
      {label}
      <select
        className="field"
        value={which === 'x' ? x : y}
        onChange={(e) => setColumns((now) => ({ ...now, [which]: Number(e.target.value) }))}
      >
        {table!.columns.map((column, i) => (
          <option key={i} value={i}>
            {column}
          </option>
        ))}
      </select>
    </label>
  )
  return (
    <Panel title="Readings" open onClose={onClose} width="w-[520px]">
      <div className="mt-3 grid gap-3">
        <p className="text-quiet">
          Paste two columns, as from a spreadsheet, or choose a CSV file: places on the axis, and
          what was read there.
        </p>
        <input
          type="file"
          accept=".csv,.txt,.tsv,text/csv"
          aria-label="CSV file"
          className="text-quiet file:mr-3 file:min-h-8 file:cursor-pointer file:rounded-md file:border file:border-solid file:border-rule file:bg-page file:px-3 file:text-ink hover:file:border-edge"
          onChange={(e) => void e.target.files?.[0]?.text().then(setText)}
        />
        <textarea
          aria-label="Readings as text"
          className="field h-36 font-mono text-[calc(13px*var(--type))]"
          placeholder={'0, 1.42\n0.5, 1.61'}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        {table && width >= 2 && (
          <div className="flex flex-wrap gap-4">
            {choose('x', `${letter} from`)}
            {choose('y', 'Readings from')}
          </div>
        )}
        {table && table.problems.length > 0 && (
          <ul className="max-h-28 overflow-y-auto text-brick">
            {table.problems.map(({ line, message }) => (
              <li key={line}>
                Line {line}: {message}
              </li>
            ))}
          </ul>
        )}
        {problem && (
          <p role="alert" className="text-brick">
            {problem}
          </p>
        )}
        <button
          type="button"
          className="button button-primary justify-self-start"
          disabled={table === null || problem !== null}
          onClick={add}
        >
          Add {points.length} readings
        </button>
      </div>
    </Panel>
  )
}

import { addReadings, readCsv, readingsProblem } from '@yperkine/core'
import { FileSpreadsheet } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Panel } from '../../parts/Panel'
import { useWorkbenchStore } from '../store'

/** Opens a place for measured readings: pasted, or from a file. */
export function ReadingsButton() {
  const [open, setOpen] = useState(false)
  return (
    <>
      <button
        type="button"
        aria-label="Readings from a file"
        title="Readings from a file"
        className="grid size-8 shrink-0 place-items-center rounded-md text-quiet hover:text-ink"
        onClick={() => setOpen(true)}
      >
        <FileSpreadsheet size={18} aria-hidden />
      </button>
      {open && <ReadingsDialog onClose={() => setOpen(false)} />}
    </>
  )
}

function ReadingsDialog({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore()
  const { letter } = store.getState().shown.variable
  const [text, setText] = useState('')
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
          Paste two columns or choose a CSV file: places on the axis, and what was read there.
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

import { type ResultTable, type Statement, toCsv } from '@yperkine/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useMemo, useRef, useState } from 'react'
import { saveAsFile } from '../../parts/saveAsFile'
import { useWorkbench, useWorkbenchStore } from '../store'

/** Rows of numbers, and of sentences in two lines, in pixels. */
const [numberHeight, wordyHeight] = [26, 42]
const mostSeen = 9

/** A column of sentences takes what numbers leave; one of numbers what its longest cell needs. */
const wordyFrom = 16
/** So many characters a table may have and be left narrow. */
const narrow = 40
const longestCell = (columns: readonly string[], rows: ResultTable['rows'], k: number) => {
  const words = Math.max(...columns[k]!.split(' ').map((w) => w.length))
  return Math.max(2, words, ...rows.slice(0, 40).map((r) => r.cells[k]?.length ?? 0))
}
const isWordy = (columns: readonly string[], rows: ResultTable['rows']) =>
  columns.some((_, k) => longestCell(columns, rows, k) > wordyFrom)

function shares(columns: readonly string[], rows: ResultTable['rows']): string {
  const longest = columns.map((_, k) => longestCell(columns, rows, k))
  if (!isWordy(columns, rows)) {
    // A few short columns stand together; many share the width by what their cells need.
    const fits = longest.reduce((total, n) => total + n + 2, 0) <= narrow
    return longest.map((n) => (fits ? `${n + 2}ch` : `minmax(0, ${n}fr)`)).join(' ')
  }
  return longest.map((n) => (n > wordyFrom ? 'minmax(0, 1fr)' : `${n + 0.5}ch`)).join(' ')
}

/** Numbers of one length after the point stand under each other; others begin at the left. */
function alignments(columns: readonly string[], rows: ResultTable['rows']): string[] {
  return columns.map((_, k) => {
    const lengths = rows.slice(0, 40).flatMap((r) => {
      const cell = r.cells[k] ?? ''
      return cell === '—' ? [] : [/^[−+]?\d+\.(\d+)$/.exec(cell)?.[1]!.length ?? -1]
    })
    const fixed = lengths.length > 0 && lengths.every((n) => n > 0 && n === lengths[0])
    return fixed ? 'text-right' : 'text-left'
  })
}

interface Props {
  line: Statement
  name: string
}

const useTable = <T,>({ line, name }: Props, select: (table: ResultTable) => T): T | undefined =>
  useWorkbench((s) => {
    const table = s.evaluation.lines.get(line.id)?.tables?.find((t) => t.name === name)
    return table && select(table)
  })

/** A table under its button; closed, its rows are not even made. */
export function ResultTableView(props: Props) {
  const [open, setOpen] = useState(useTable(props, (t) => t.open) ?? false)
  const close = () => setOpen((now) => !now)
  if (open) return <OpenTable {...props} onClose={close} />
  return (
    <div className="mt-1.5 mr-1.5 inline-block">
      <Head {...props} open={false} onPress={close} />
    </div>
  )
}

function Head({ open, onPress, ...of }: Props & { open: boolean; onPress: () => void }) {
  const count = useTable(of, (t) => t.count)
  return (
    <button type="button" className="pill" aria-expanded={open} onClick={onPress}>
      {of.name} · {count}
    </button>
  )
}

/** Nothing is shown of a table that has just gone. */
function OpenTable({ onClose, ...of }: Props & { onClose: () => void }) {
  const table = useTable(of, (t) => t)
  return table ? <Rows line={of.line} table={table} onClose={onClose} /> : null
}

/** Rows of numbers: sorted by any column, copied, kept as a file; row and point light each other. */
function Rows({
  line,
  table,
  onClose,
}: {
  line: Statement
  table: ResultTable
  onClose: () => void
}) {
  const store = useWorkbenchStore()
  const { name, columns, rows } = table
  const [order, setOrder] = useState<{ column: number; falls: boolean } | null>(null)
  const box = useRef<HTMLDivElement>(null)
  const highlight = useWorkbench((s) => s.highlight)
  const sorted = useMemo(() => {
    if (!order) return rows
    const { column } = order
    // Numbers by their size, before words by the alphabet.
    const up = [...rows].sort((a, b) => {
      const [x, y] = [a.values[column] ?? null, b.values[column] ?? null]
      if (x !== null && y !== null) return x - y
      if (x !== null || y !== null) return x === null ? 1 : -1
      return (a.cells[column] ?? '').localeCompare(b.cells[column] ?? '')
    })
    return order.falls ? up.reverse() : up
  }, [rows, order])
  const grid = useMemo(() => ({ gridTemplateColumns: shares(columns, rows) }), [columns, rows])
  const aligned = useMemo(() => alignments(columns, rows), [columns, rows])
  const dense = columns.length > 4
  const wordy = useMemo(() => isWordy(columns, rows), [columns, rows])
  const rowHeight = wordy ? wordyHeight : numberHeight
  // Rows that are not seen are not there: a table may have thousands.
  const virtual = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => box.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  })
  const lit = sorted.findIndex((r) => r.x !== undefined && r.x === highlight)
  useEffect(() => {
    if (lit >= 0 && !box.current?.matches(':hover')) virtual.scrollToIndex(lit)
  }, [lit, virtual])
  const asText = () =>
    [columns, ...sorted.map((r) => r.cells)].map((cells) => cells.join('\t')).join('\n')
  const copy = () =>
    void navigator.clipboard.writeText(asText()).then(
      () => store.getState().announce(`Copied ${sorted.length} rows`),
      () => store.getState().announce('The browser did not let the text be copied'),
    )
  const keep = () => {
    // Numbers with all their digits; a cell of words as it reads.
    const cellsOf = ({ values, cells }: (typeof rows)[number]) =>
      values.map((v, k) => v ?? (cells[k] === '—' ? '' : (cells[k] ?? '')))
    const csv = toCsv(columns, sorted.map(cellsOf))
    saveAsFile(`${name.toLowerCase()} ${line.id}.csv`, csv, 'text/csv')
  }
  return (
    <div className="mt-1.5">
      <div className="flex flex-wrap items-center gap-1.5">
        <Head line={line} name={name} open onPress={onClose} />
        <button type="button" className="pill" onClick={copy}>
          Copy
        </button>
        <button type="button" className="pill" onClick={keep}>
          Keep as CSV
        </button>
      </div>
      <div
        role="table"
        aria-label={name}
        aria-rowcount={sorted.length + 1}
        className={`mt-1 ${dense ? 'text-[calc(13px*var(--type))]' : 'text-[calc(14px*var(--type))]'}`}
        onPointerLeave={() => store.getState().setHighlight(null)}
      >
        <div role="rowgroup" className="border-b border-rule pr-3">
          <div role="row" className="grid items-end gap-x-2.5" style={grid}>
            {columns.map((column, k) => (
              <div
                key={k}
                role="columnheader"
                aria-sort={
                  order?.column === k ? (order.falls ? 'descending' : 'ascending') : 'none'
                }
                className={`py-0.5 text-[calc(13px*var(--type))] text-quiet ${aligned[k]}`}
              >
                <button
                  type="button"
                  className={`hover:text-ink ${aligned[k]}`}
                  onClick={() =>
                    setOrder((now) => ({
                      column: k,
                      falls: now?.column === k ? !now.falls : false,
                    }))
                  }
                >
                  {column}
                </button>
              </div>
            ))}
          </div>
        </div>
        <div
          ref={box}
          role="rowgroup"
          tabIndex={sorted.length > mostSeen ? 0 : undefined}
          className="overflow-y-auto [scrollbar-gutter:stable]"
          style={{ height: Math.min(sorted.length, mostSeen) * rowHeight + 2 }}
        >
          <div className="relative" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map((item) => {
              const row = sorted[item.index]!
              const isLit = row.x !== undefined && row.x === highlight
              return (
                <div
                  key={item.key}
                  role="row"
                  aria-rowindex={item.index + 2}
                  className={`absolute inset-x-0 grid items-center gap-x-2.5 border-b border-rule ${isLit ? 'bg-chosen' : ''}`}
                  style={{ ...grid, height: rowHeight, transform: `translateY(${item.start}px)` }}
                  onPointerEnter={() => store.getState().setHighlight(row.x ?? null)}
                >
                  {row.cells.map((cell, k) => (
                    <span
                      key={k}
                      role="cell"
                      className={`${wordy ? 'line-clamp-2 leading-tight text-balance' : 'truncate'} ${aligned[k]}`}
                      title={cell}
                    >
                      {cell}
                    </span>
                  ))}
                </div>
              )
            })}
          </div>
        </div>
      </div>
    </div>
  )
}

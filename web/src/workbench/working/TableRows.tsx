import { type ResultTable, type Statement, toCsv } from '@yperkine/core'
import {
  type ColumnDef,
  getCoreRowModel,
  getSortedRowModel,
  type Header,
  type Row,
  type SortingFn,
  useReactTable,
} from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { type CSSProperties, type ReactNode, useEffect, useMemo, useRef } from 'react'
import { saveAsFile } from '../../parts/saveAsFile'
import { useWorkbench, useWorkbenchStore } from '../store'
import { alignments, columnWidths, isWordy } from './tableWidths'

type TableRow = ResultTable['rows'][number]

/** Rows of numbers, and of sentences in two lines, in pixels. */
const [numberHeight, wordyHeight] = [26, 42]
const mostSeen = 9

/** Numbers by their size, before words by the alphabet. */
const byValue: SortingFn<TableRow> = (a, b, column) => {
  const k = Number(column)
  const [x, y] = [a.original.values[k] ?? null, b.original.values[k] ?? null]
  if (x !== null && y !== null) return x - y
  if (x !== null || y !== null) return x === null ? 1 : -1
  return (a.original.cells[k] ?? '').localeCompare(b.original.cells[k] ?? '')
}

const columnsOf = (columns: readonly string[]): ColumnDef<TableRow>[] =>
  columns.map((header, k) => ({
    id: String(k),
    header,
    accessorFn: (row) => row.cells[k] ?? '',
    sortingFn: byValue,
    // The first press puts the least first, the next one the greatest, and so on.
    sortDescFirst: false,
  }))

interface Props {
  line: Statement
  table: ResultTable
  /** What stands at the head, before the buttons. */
  children: ReactNode
}

/** Rows of numbers: sorted by any column, copied, kept as a file; row and point light each other. */
export function TableRows({ line, table: { name, columns, rows }, children }: Props) {
  const store = useWorkbenchStore()
  const table = useReactTable({
    data: rows as TableRow[],
    columns: useMemo(() => columnsOf(columns), [columns]),
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    enableSortingRemoval: false,
    enableMultiSort: false,
  })
  const sorted = table.getRowModel().rows
  const grid = useMemo(
    () => ({ gridTemplateColumns: columnWidths(columns, rows) }),
    [columns, rows],
  )
  const aligned = useMemo(() => alignments(columns, rows), [columns, rows])
  const asText = () =>
    [columns, ...sorted.map((r) => r.original.cells)].map((cells) => cells.join('\t')).join('\n')
  const copy = () =>
    void navigator.clipboard.writeText(asText()).then(
      () => store.getState().announce(`Copied ${sorted.length} rows`),
      () => store.getState().announce('The browser did not let the text be copied'),
    )
  const keep = () => {
    // Numbers with all their digits; a cell of words as it reads.
    const cellsOf = ({ original: { values, cells } }: Row<TableRow>) =>
      values.map((v, k) => v ?? (cells[k] === '—' ? '' : (cells[k] ?? '')))
    const csv = toCsv(columns, sorted.map(cellsOf))
    saveAsFile(`${name.toLowerCase()} ${line.id}.csv`, csv, 'text/csv')
  }
  return (
    <div className="mt-1.5">
      <div className="flex flex-wrap items-center gap-1.5">
        {children}
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
        className={`mt-1 ${columns.length > 4 ? 'text-[calc(13px*var(--type))]' : 'text-[calc(14px*var(--type))]'}`}
        onPointerLeave={() => store.getState().setHighlight(null)}
      >
        <div role="rowgroup" className="border-b border-rule pr-3">
          <div role="row" className="grid items-end gap-x-2.5" style={grid}>
            {table.getFlatHeaders().map((header, k) => (
              <ColumnHead key={header.id} header={header} align={aligned[k]!} />
            ))}
          </div>
        </div>
        <Body rows={sorted} grid={grid} aligned={aligned} wordy={isWordy(columns, rows)} />
      </div>
    </div>
  )
}

const sortWords = { asc: 'ascending', desc: 'descending' } as const

function ColumnHead({ header, align }: { header: Header<TableRow, unknown>; align: string }) {
  const order = header.column.getIsSorted()
  return (
    <div
      role="columnheader"
      aria-sort={order ? sortWords[order] : 'none'}
      className={`py-0.5 text-[calc(13px*var(--type))] text-quiet ${align}`}
    >
      <button
        type="button"
        className={`hover:text-ink ${align}`}
        onClick={header.column.getToggleSortingHandler()}
      >
        {String(header.column.columnDef.header)}
      </button>
    </div>
  )
}

interface BodyProps {
  rows: Row<TableRow>[]
  grid: CSSProperties
  aligned: readonly string[]
  wordy: boolean
}

/** Rows that are not seen are not there: a table may have thousands. */
function Body({ rows, grid, aligned, wordy }: BodyProps) {
  const store = useWorkbenchStore()
  const box = useRef<HTMLDivElement>(null)
  const highlight = useWorkbench((s) => s.highlight)
  const rowHeight = wordy ? wordyHeight : numberHeight
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  })
  const isLit = (row: TableRow) => row.x !== undefined && row.x === highlight
  const lit = rows.findIndex(({ original }) => isLit(original))
  useEffect(() => {
    if (lit >= 0 && !box.current?.matches(':hover')) virtual.scrollToIndex(lit)
  }, [lit, virtual])
  return (
    <div
      ref={box}
      role="rowgroup"
      tabIndex={rows.length > mostSeen ? 0 : undefined}
      className="overflow-y-auto [scrollbar-gutter:stable]"
      style={{ height: Math.min(rows.length, mostSeen) * rowHeight + 2 }}
    >
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]!.original
          return (
            <div
              key={item.key}
              role="row"
              aria-rowindex={item.index + 2}
              className={`absolute inset-x-0 grid items-center gap-x-2.5 border-b border-rule ${isLit(row) ? 'bg-chosen' : ''}`}
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
  )
}

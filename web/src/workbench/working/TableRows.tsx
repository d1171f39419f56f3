import { latexTable, type ResultTable, type Statement, tableTitle, toCsv } from '@yperkine/core'
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
import { type CSSProperties, type ReactNode, useEffect, useMemo, useRef, useState } from 'react'
import { Panel } from '../../parts/Panel'
import { copyTable } from '../../parts/copyTable'
import { saveAsFile } from '../../parts/saveAsFile'
import { useWorkbench, useWorkbenchStore } from '../store'
import { alignments, columnWidths, isWordy, leastWidth } from './tableWidths'

type TableRow = ResultTable['rows'][number]

/** Rows of numbers, and of sentences in two lines, in pixels. */
const [numberHeight, wordyHeight] = [26, 42]
const [mostSeen, mostSeenLarge] = [9, 22]
/** The heads of columns may stand in two lines. */
const headHeight = 44

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
  /** In a panel of its own, where there is more room. */
  large?: boolean
  /** What stands at the head, before the buttons. */
  children: ReactNode
}

/** Rows of numbers: sorted by any column, copied, kept as a file; row and point light each other. */
export function TableRows({ line, table: shown, large = false, children }: Props) {
  const { columns, rows } = shown
  const name = tableTitle(shown)
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
  const width = useMemo(() => leastWidth(columns, rows), [columns, rows])
  const [enlarged, setEnlarged] = useState(false)
  const asText = () =>
    [columns, ...sorted.map((r) => r.original.cells)].map((cells) => cells.join('\t')).join('\n')
  const copy = () =>
    void copyTable(asText(), [columns, ...sorted.map((r) => r.original.cells)]).then(
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
  const copyLatex = () => {
    const rows = sorted.map(({ original }) => original)
    void navigator.clipboard.writeText(latexTable({ ...shown, rows }).source).then(
      () => store.getState().announce(`Copied ${sorted.length} rows as LaTeX`),
      () => store.getState().announce('The browser did not let the text be copied'),
    )
  }
  return (
    <div className="mt-1.5">
      <div className="flex flex-wrap items-center gap-1.5">
        {children}
        <button type="button" className="pill" onClick={copy}>
          Copy
        </button>
        <button
          type="button"
          className="pill"
          title="Copies the table as the source of a table in LaTeX"
          onClick={copyLatex}
        >
          For LaTeX
        </button>
        <button type="button" className="pill" onClick={keep}>
          Save as CSV
        </button>
        {!large && (
          <button type="button" className="pill" onClick={() => setEnlarged(true)}>
            Larger
          </button>
        )}
      </div>
      {enlarged && (
        <Panel title={name} open width="w-[960px]" onClose={() => setEnlarged(false)}>
          <TableRows line={line} table={shown} large>
            {null}
          </TableRows>
        </Panel>
      )}
      <div
        role="table"
        aria-label={name}
        aria-rowcount={sorted.length + 1}
        className={`mt-1 ${columns.length > 4 ? 'text-[calc(13px*var(--type))]' : 'text-[calc(14px*var(--type))]'}`}
        onPointerLeave={() => store.getState().setHighlight(null)}
      >
        <Body
          rows={sorted}
          grid={grid}
          width={width}
          aligned={aligned}
          wordy={isWordy(columns, rows)}
          seen={large ? mostSeenLarge : mostSeen}
        >
          {table.getFlatHeaders().map((header, k) => (
            <ColumnHead key={header.id} header={header} align={aligned[k]!} first={k === 0} />
          ))}
        </Body>
      </div>
    </div>
  )
}

const sortWords = { asc: 'ascending', desc: 'descending' } as const

/** The first column stays where the others scroll past it. */
const kept = 'sticky left-0 z-10 bg-inherit'

interface HeadProps {
  header: Header<TableRow, unknown>
  align: string
  first: boolean
}

function ColumnHead({ header, align, first }: HeadProps) {
  const order = header.column.getIsSorted()
  return (
    <div
      role="columnheader"
      aria-sort={order ? sortWords[order] : 'none'}
      className={`py-0.5 text-[calc(13px*var(--type))] text-quiet ${align} ${first ? kept : ''}`}
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
  width: string
  aligned: readonly string[]
  wordy: boolean
  /** So many rows are seen at once. */
  seen: number
  /** The heads of the columns. */
  children: ReactNode
}

/** Rows that are not seen are not there: a table may have thousands. */
function Body({ rows, grid, width, aligned, wordy, seen, children }: BodyProps) {
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
      tabIndex={rows.length > 0 ? 0 : undefined}
      role="presentation"
      className="max-w-full overflow-auto [scrollbar-gutter:stable]"
      style={{ maxHeight: seen * rowHeight + headHeight + 2 }}
    >
      <div style={{ minWidth: width }}>
        <div role="rowgroup" className="sticky top-0 z-20 border-b border-rule bg-page">
          <div role="row" className="grid items-end gap-x-2.5 bg-page" style={grid}>
            {children}
          </div>
        </div>
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index]!.original
            return (
              <div
                key={item.key}
                role="row"
                aria-rowindex={item.index + 2}
                className={`absolute inset-x-0 grid items-center gap-x-2.5 border-b border-rule ${isLit(row) ? 'bg-chosen' : 'bg-page'}`}
                style={{ ...grid, height: rowHeight, transform: `translateY(${item.start}px)` }}
                onPointerEnter={() => store.getState().setHighlight(row.x ?? null)}
              >
                {row.cells.map((cell, k) => (
                  <span
                    key={k}
                    role="cell"
                    className={`${wordy ? 'line-clamp-2 leading-tight text-balance' : 'truncate'} ${aligned[k]} ${k === 0 && !wordy ? kept : ''}`}
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
  )
}

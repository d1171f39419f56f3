import { type Part, type Row, rowsOf, type Statement } from '@yperkine/core'
import { useMemo, useRef } from 'react'
import { useStudy, useWorkbench } from '../store'
import { UndoRedo } from '../UndoRedo'
import { HandOn } from '../../handOn/HandOn'
import { PresentButton } from '../lesson/PresentButton'
import { FirstHints } from '../help/FirstHints'
import { LineItem } from './LineItem'
import { PartItem } from './PartItem'
import { SayWhatToAdd } from './SayWhatToAdd'
import { Sorted } from './Sorted'
import { useShowNewLine } from './useShowNewLine'

/** The study in sentences, each with its results. */
export function Working({ onHelp }: { onHelp: () => void }) {
  const lines = useStudy((s) => s.lines)
  const announcement = useWorkbench((s) => s.announcement)
  const list = useRef<HTMLOListElement>(null)
  const parts = useStudy((s) => s.parts)
  const rows = useMemo(() => rowsOf({ lines, parts }), [lines, parts])
  const order = rows.map(({ key }) => key).join(' ')
  const keys = useMemo(() => order.split(' ').filter(Boolean), [order])
  const ids = useMemo(() => keys.filter((key) => !key.startsWith('end:')), [keys])
  const names = useMemo(() => namesOfRows(rows), [rows])
  useShowNewLine(list, ids)
  return (
    <section
      aria-label="Working"
      className="flex min-h-0 w-[404px] shrink-0 flex-col border-l border-rule bg-page [contain:layout] max-lg:w-full max-lg:border-t max-lg:border-l-0"
    >
      <div className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule px-[18px]">
        <h2 className="font-serif text-[calc(18px*var(--type))] font-semibold">Working</h2>
        <span className="truncate text-quiet">
          {parts.length > 0 && `${parts.length} ${parts.length === 1 ? 'part' : 'parts'}, `}
          {lines.length} {lines.length === 1 ? 'line' : 'lines'}
        </span>
        <div className="ml-auto flex gap-1 sm:hidden">
          <PresentButton />
          <HandOn />
          <UndoRedo className="flex gap-1" />
        </div>
      </div>
      <Sorted ids={ids} names={names}>
        {/* A layer of its own, as the lanes' grounds are: what moves there does not redraw it. */}
        <ol ref={list} className="min-h-0 flex-1 overflow-y-auto will-change-transform">
          {/* All as one row of siblings: a line that moves up keeps its element, and the focus in it. */}
          {grouped(rows).flatMap(({ part, lines: own }) => {
            const items = own.map((line) => (
              <LineItem key={line.id} line={line} number={lines.indexOf(line) + 1} />
            ))
            return part ? (
              <PartItem key={part.id} part={part} count={own.length}>
                {items}
              </PartItem>
            ) : (
              items
            )
          })}
          {lines.length === 0 && parts.length === 0 && (
            <li className="px-[18px] py-4 text-quiet">
              Nothing stands here yet. Say “let f(x) = x^2 - 3” below to begin with a curve.
            </li>
          )}
        </ol>
      </Sorted>
      <FirstHints onMore={onHelp} />
      <SayWhatToAdd />
      <div aria-live="polite" className="sr-only">
        {announcement}
      </div>
    </section>
  )
}

/** Rows as they are laid out: lines by themselves, and parts with what is under them. */
function grouped(rows: readonly Row[]): { part: Part | null; lines: Statement[] }[] {
  const groups: { part: Part | null; lines: Statement[] }[] = []
  for (const row of rows) {
    if (row.kind === 'part') groups.push({ part: row.part, lines: [] })
    if (row.kind !== 'line') continue
    const last = groups.at(-1)
    if (last && last.part === row.part && row.part) last.lines.push(row.line)
    else groups.push({ part: row.part, lines: [row.line] })
  }
  return groups
}

function namesOfRows(rows: readonly Row[]): ReadonlyMap<string, string> {
  let number = 0
  return new Map(
    rows.map((row) => {
      if (row.kind === 'line') return [row.key, `line ${(number += 1)}`]
      const { letter } = row.part
      return [row.key, row.kind === 'part' ? `part ${letter}` : `the end of part ${letter}`]
    }),
  )
}

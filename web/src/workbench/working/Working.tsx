import { useMemo, useRef } from 'react'
import { useStudy, useWorkbench } from '../store'
import { UndoRedo } from '../UndoRedo'
import { FirstHints } from '../help/FirstHints'
import { LineItem } from './LineItem'
import { SayWhatToAdd } from './SayWhatToAdd'
import { Sorted } from './Sorted'
import { useShowNewLine } from './useShowNewLine'

/** The study in sentences, each with its results. */
export function Working({ onHelp }: { onHelp: () => void }) {
  const lines = useStudy((s) => s.lines)
  const announcement = useWorkbench((s) => s.announcement)
  const list = useRef<HTMLOListElement>(null)
  const order = lines.map((l) => l.id).join(' ')
  const ids = useMemo(() => order.split(' ').filter(Boolean), [order])
  useShowNewLine(list, ids)
  return (
    <section
      aria-label="Working"
      className="flex min-h-0 w-[404px] shrink-0 flex-col border-l border-rule bg-page [contain:layout] max-lg:w-full max-lg:border-t max-lg:border-l-0"
    >
      <div className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule px-[18px]">
        <h2 className="font-serif text-[calc(18px*var(--type))] font-semibold">Working</h2>
        <span className="text-quiet">
          {lines.length} {lines.length === 1 ? 'line' : 'lines'}
        </span>
        <UndoRedo className="ml-auto flex gap-1 sm:hidden" />
      </div>
      <Sorted ids={ids}>
        {/* A layer of its own, as the lanes' grounds are: what moves there does not redraw it. */}
        <ol ref={list} className="min-h-0 flex-1 overflow-y-auto will-change-transform">
          {lines.map((line, i) => (
            <LineItem key={line.id} line={line} number={i + 1} />
          ))}
          {lines.length === 0 && (
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

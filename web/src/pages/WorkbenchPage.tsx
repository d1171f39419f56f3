import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useState } from 'react'
import { useLocation, useParams } from 'react-router'
import { Refused, TryLater } from '../api'
import { noteOpened } from '../openings'
import { preloadFormulaField } from '../parts/FormulaField'
import { Deck } from '../workbench/deck/Deck'
import { Views } from '../workbench/space/Views'
import type { Opening } from '../workbench/saving/drafts'
import { Presenting } from '../workbench/lesson/Presenting'
import { Steps } from '../workbench/lesson/Steps'
import { openStudy } from '../workbench/saving/open'
import { saving } from '../workbench/saving/saving'
import { SavingTrouble } from '../workbench/saving/SavingTrouble'
import { useAutosave } from '../workbench/saving/useAutosave'
import { HowItWorks } from '../workbench/help/HowItWorks'
import {
  createWorkbench,
  useStudy,
  useWorkbench,
  useWorkbenchStore,
  WorkbenchContext,
} from '../workbench/store'
import { TopBar } from '../workbench/TopBar'
import { useLook } from '../workbench/useLook'
import { usePlayer } from '../workbench/deck/usePlayer'
import { useShortcuts } from '../workbench/gestures/useShortcuts'
import { Working } from '../workbench/working/Working'
import { CannotBeRead } from './CannotBeRead'
import { MissingPage } from './MissingPage'

export function WorkbenchPage() {
  const { id = '' } = useParams()
  const queries = useQueryClient()
  // What a study is while it is open is the workbench's business: it is read once.
  const opening = useQuery({
    queryKey: ['study', id],
    queryFn: () => openStudy(id),
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  })
  const isThere = opening.data !== undefined
  useEffect(() => {
    if (isThere) noteOpened(id)
  }, [id, isThere])
  if (opening.error instanceof Refused) return <MissingPage message={opening.error.message} />
  if (opening.isError) {
    return <CannotBeRead error={opening.error} onAgain={() => void opening.refetch()} />
  }
  if (!opening.data || opening.isFetching) {
    const held = opening.failureReason
    return (
      <p role="status" className="p-8 text-quiet">
        Opening the study …
        {held instanceof TryLater && ` ${held.message}; it opens as soon as there is an answer.`}
      </p>
    )
  }
  const takeTheirs = async () => {
    await (await saving()).drafts.drop(id)
    await queries.resetQueries({ queryKey: ['study', id] })
  }
  return (
    <OpenStudy
      key={`${id} ${opening.dataUpdatedAt}`}
      opening={opening.data}
      onTakeTheirs={() => void takeTheirs()}
    />
  )
}

interface OpenProps {
  opening: Opening
  onTakeTheirs: () => void
}

function OpenStudy({ opening, onTakeTheirs }: OpenProps) {
  const left = leftToSay(useLocation().state)
  const [store] = useState(() => createWorkbench(opening.stored.id, opening.study, left))
  useAutosave(store, opening)
  return (
    <WorkbenchContext value={store}>
      <Bench opening={opening} onTakeTheirs={onTakeTheirs} />
    </WorkbenchContext>
  )
}

/** What a study was begun with and could not be understood yet. */
const leftToSay = (state: unknown): string =>
  typeof state === 'object' && state !== null && 'left' in state && typeof state.left === 'string'
    ? state.left
    : ''

function Bench({ opening, onTakeTheirs }: OpenProps) {
  const store = useWorkbenchStore()
  const title = useStudy((s) => s.title)
  const presenting = useWorkbench((s) => s.presenting !== null)
  const [help, setHelp] = useState(false)
  const showHelp = useCallback(() => setHelp(true), [])
  usePlayer(store)
  useShortcuts(store, showHelp)
  useEffect(preloadFormulaField, [])
  useEffect(() => {
    document.title = `${title} · Yperkine`
  }, [title])
  useLook()
  if (presenting) return <Presenting />
  return (
    <div className="flex h-full flex-col overflow-hidden">
      <TopBar onHelp={showHelp} />
      <SavingTrouble unreadable={opening.unreadable} onTakeTheirs={onTakeTheirs} />
      <main className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
        <div className="flex min-w-0 flex-1 flex-col max-lg:min-h-[max(520px,62vh)] max-lg:flex-none max-sm:min-h-[max(640px,80vh)]">
          <Views />
          <Steps />
          <Deck />
        </div>
        <Working onHelp={showHelp} />
      </main>
      <HowItWorks open={help} onClose={() => setHelp(false)} />
    </div>
  )
}

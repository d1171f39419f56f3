import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api } from '../../api'
import type { WorkbenchStore } from '../store'
import { createAutosave } from './autosave'
import type { Opening } from './drafts'
import { leave } from './open'
import { saving } from './saving'

/**
 * Sends every settled state of the study to the server, and the last one when the page is left.
 * What the server does not have yet is kept in the browser as well.
 */
export function useAutosave(store: WorkbenchStore, opening: Opening) {
  const queries = useQueryClient()
  const [first] = useState(opening)
  useEffect(() => {
    const { id, version, study } = first.stored
    const { setStatus, setTheirs, setGone } = store.getState()
    const kept = saving()
    const autosave = createAutosave({
      version,
      saved: study,
      send: (base, next, saveId, last) => api.save(id, base, next, saveId, last),
      onStatus(status, fault) {
        setStatus(status, fault)
        if (status === 'Saved') void kept.then(({ drafts }) => drafts.drop(id))
      },
      onConflict: setTheirs,
      onGone: setGone,
      newSaveId: () => crypto.randomUUID(),
    })
    const keep = async () => {
      const { drafts } = await kept
      const unsaved = autosave.unsaved()
      if (unsaved) await drafts.keep(id, unsaved)
    }
    let last = study
    const take = (next: typeof study) => {
      if (next === last) return
      last = next
      autosave.change(next)
      void keep()
    }
    take(first.study)
    if (first.theirs || first.gone) {
      if (first.theirs) setTheirs(first.theirs)
      else setGone()
      const why = first.gone
        ? 'it was deleted elsewhere'
        : 'it was changed elsewhere in the meantime'
      setStatus('Not saved', why)
      autosave.stop()
    }
    const stop = store.subscribe(({ history, held, courses }) => {
      // While a drag runs there is nothing settled to keep; edits made while it plays are.
      if (!held || courses) take(history.present)
    })
    let drafts: Awaited<typeof kept>['drafts'] | null = null
    void kept.then((made) => (drafts = made.drafts))
    /** The page may go: what is unsaved leaves, and stays here until it has arrived. */
    const flush = () => {
      // A drag or a motion that is cut off leaves its last state.
      take(store.getState().history.present)
      void autosave.flush()
      const unsaved = autosave.unsaved()
      if (unsaved) drafts?.keepNow(id, unsaved)
    }
    const onHide = () => document.visibilityState === 'hidden' && flush()
    const retry = () => void autosave.retry()
    window.addEventListener('pagehide', flush)
    window.addEventListener('beforeunload', flush)
    window.addEventListener('online', retry)
    document.addEventListener('visibilitychange', onHide)
    return () => {
      stop()
      window.removeEventListener('pagehide', flush)
      window.removeEventListener('beforeunload', flush)
      window.removeEventListener('online', retry)
      document.removeEventListener('visibilitychange', onHide)
      const finish = async () => {
        await autosave.flush()
        // What someone has decided about, after a conflict, is not brought up again.
        if (!autosave.hasEnded()) await keep()
        autosave.stop()
        await queries.invalidateQueries({ queryKey: ['studies'] })
      }
      leave(id, finish())
    }
  }, [store, first, queries])
}

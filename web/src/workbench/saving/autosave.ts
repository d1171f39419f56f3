import type { SavedAnswer, StoredStudy, Study } from '@yperkine/core'
import { delayBefore, Refused } from '../../api'
import { currentOf } from '../../storedStudy'

export type SaveStatus = 'Saved' | 'Saving' | 'Not saved'

/** A save that has left, or is about to: with the same id it can be sent again. */
export interface Flight {
  study: Study
  saveId: string
}

export interface AutosaveOptions {
  version: number
  /** The state the server has. */
  saved: Study
  send: (version: number, study: Study, saveId: string, last: boolean) => Promise<SavedAnswer>
  onStatus: (status: SaveStatus, fault: string | null) => void
  /** Someone else's state has won; nothing is sent any more. */
  onConflict: (theirs: StoredStudy) => void
  /** The study was deleted elsewhere; nothing is sent any more. */
  onGone: () => void
  newSaveId: () => string
  /** How long after the last edit a save leaves, in milliseconds. */
  delay?: number
  /** From 0 to 1, by which attempts are spread. */
  random?: () => number
}

/**
 * Saves a study by itself: one save in flight, later states coalesced into the next. A save that
 * got no answer, or was put off, is sent again with the same id until it is in, so that the server
 * can recognise it: a lost reply must not look like someone else's change.
 */
export function createAutosave(options: AutosaveOptions) {
  const { send, onStatus, onConflict, onGone, newSaveId, delay = 600, random } = options
  let { version, saved } = options
  let latest = saved
  let flight: Flight | null = null
  let sending = false
  let failures = 0
  let ended = false
  let timer: ReturnType<typeof setTimeout> | undefined

  const later = (milliseconds: number) => {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), milliseconds)
  }
  const end = (fault: string) => {
    ended = true
    onStatus('Not saved', fault)
  }

  const save = async (last = false): Promise<void> => {
    if (sending || ended) return
    flight ??= latest === saved ? null : { study: latest, saveId: newSaveId() }
    if (!flight) return
    sending = true
    onStatus('Saving', null)
    try {
      const stored = await send(version, flight.study, flight.saveId, last)
      version = stored.version
      saved = flight.study
      flight = null
      failures = 0
      sending = false
      if (latest === saved) onStatus('Saved', null)
      else if (last) await save(true)
      else later(0)
    } catch (error) {
      sending = false
      const theirs = error instanceof Refused ? currentOf(error) : null
      if (theirs) {
        end('it was changed elsewhere in the meantime')
        onConflict(theirs)
        return
      }
      if (error instanceof Refused && error.status === 404) {
        end('it was deleted elsewhere')
        onGone()
        return
      }
      const reason = error instanceof Error ? error.message : String(error)
      if (error instanceof Refused) {
        // The server has seen this very state and will not have it; the next edit may mend it.
        flight = null
        onStatus('Not saved', reason)
        return
      }
      const wait = delayBefore(failures, error, random)
      failures += 1
      onStatus('Not saved', `${reason}; trying again in ${Math.ceil(wait / 1000)} s`)
      later(wait)
    }
  }

  return {
    /** Tells of a new state. */
    change(study: Study) {
      if (study === latest) return
      latest = study
      if (ended) return
      if (latest === saved && !flight) {
        clearTimeout(timer)
        onStatus('Saved', null)
        return
      }
      if (failures === 0) onStatus('Saving', null)
      if (!flight || failures === 0) later(delay)
    },
    /** Sends what is unsaved at once, as when the page is left; resolves when it is in or put off. */
    flush: () => save(true),
    /** Tries again now, as when the network is back. */
    retry: () => save(),
    isClean: () => latest === saved && !flight,
    /** Someone else has won, or the study is gone: what is shown is for people to decide about. */
    hasEnded: () => ended,
    /** What the server does not have for certain: the state, what it goes on from, what has left. */
    unsaved: () => (latest === saved && !flight ? null : { version, study: latest, flight }),
    stop() {
      ended = true
      clearTimeout(timer)
    },
  }
}

export type Autosave = ReturnType<typeof createAutosave>

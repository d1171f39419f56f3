import type { Study } from '@yperkine/core'
import { currentOf, Refused, type StoredStudy } from '../api'

export type SaveStatus = 'Saved' | 'Saving' | 'Not saved'

export interface AutosaveOptions {
  version: number
  /** The state the server has. */
  saved: Study
  send: (version: number, study: Study, saveId: string, last: boolean) => Promise<StoredStudy>
  onStatus: (status: SaveStatus, fault: string | null) => void
  /** Someone else's state has won; nothing is sent any more. */
  onConflict: (theirs: StoredStudy) => void
  newSaveId: () => string
  /** How long after the last edit a save leaves, in milliseconds. */
  delay?: number
}

const retryDelays = [1000, 2000, 5000, 10_000]

/**
 * Saves a study by itself: one save in flight, later states coalesced into the next. A save that
 * got no answer is sent again with the same id, so that the server can recognise it: a lost reply
 * must not look like someone else's change.
 */
export function createAutosave(options: AutosaveOptions) {
  const { send, onStatus, onConflict, newSaveId, delay = 600 } = options
  let { version, saved } = options
  let latest = saved
  let flight: { study: Study; saveId: string } | null = null
  let sending = false
  let failures = 0
  let ended = false
  let timer: ReturnType<typeof setTimeout> | undefined

  const later = (milliseconds: number) => {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), milliseconds)
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
      else later(0)
    } catch (error) {
      sending = false
      const theirs = error instanceof Refused ? currentOf(error) : null
      if (theirs) {
        ended = true
        onStatus('Not saved', 'it was changed elsewhere in the meantime')
        onConflict(theirs)
        return
      }
      onStatus('Not saved', error instanceof Error ? error.message : String(error))
      if (error instanceof Refused) {
        // The server has seen this very state and will not have it; the next edit may mend it.
        flight = null
        return
      }
      later(retryDelays[Math.min(failures, retryDelays.length - 1)]!)
      failures += 1
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
    /** Sends what is unsaved at once, as when the page is left. */
    flush: () => save(true),
    /** Tries again now, as when the network is back. */
    retry: () => save(),
    isClean: () => latest === saved && !flight,
    stop() {
      ended = true
      clearTimeout(timer)
    },
  }
}

export type Autosave = ReturnType<typeof createAutosave>

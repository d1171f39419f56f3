import { type Offer, suggestions, understandFirst, whyNothing } from '@yperkine/core'
import { type KeyboardEvent, type RefObject, useMemo, useRef, useState } from 'react'
import type { Choice } from './SuggestedList'
import { useWorkbench, useWorkbenchStore } from '../store'

const none = { offers: [], unread: [], begun: false, equal: 1, why: null } as const

/** What is typed in “Say what to add”, what is made of it, and what comes of choosing. */
export function useRequest(input: RefObject<HTMLInputElement | null>) {
  const store = useWorkbenchStore()
  const text = useWorkbench((s) => s.request)
  const setText = (next: string) => store.getState().setRequest(next)
  const [looking, setLooking] = useState(false)
  // Enter on what is not understood shows every word that is not, the last one too.
  const [tried, setTried] = useState(false)
  const chosen = useRef(false)
  // Offers follow the study only while the field is in use: a drag must not pay for them.
  const study = useWorkbench((s) => (looking ? s.shown : null))
  const place = useWorkbench((s) => (looking ? s.selectedPlace : null))
  const span = useWorkbench((s) => (looking ? s.selectedSpan : null))
  const empty = text.trim() === ''
  const groups = useMemo(
    () => (study && empty ? suggestions(study, place, span) : []),
    [study, empty, place, span],
  )
  const found = useMemo(
    () => (study && !empty ? understandFirst(text, study, place, span) : null),
    [text, empty, study, place, span],
  )
  const { offers, unread, begun, equal, why } = found?.understood ?? none
  const rest = found?.rest ?? ''
  const strange = begun ? [] : unread
  // What has to be asked about is not added by Enter alone.
  const asks = strange.length > 0 || equal > 1 || why !== null
  const lost = found && offers.length === 0 && study ? whyNothing(text, study) : null

  const type = (next: string) => {
    setText(next)
    setTried(false)
    chosen.current = false
  }
  const add = (offer: Offer) => {
    const { apply, announce } = store.getState()
    apply(offer.edit)
    const told = offer.sets ? offer.sentence : `Added: ${offer.sentence}`
    announce(rest === '' ? told : `${told}. Next: ${rest}`)
    type(rest)
    // The list closes with a choice; what is left to say opens it anew.
    if (rest !== '') {
      input.current?.blur()
      requestAnimationFrame(() => input.current?.focus())
    }
  }
  const choose = (choice: Choice | null) => {
    if (choice === null) return
    if ('fill' in choice) {
      type(choice.fill)
      input.current?.focus()
    } else add(choice.offer)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') chosen.current = true
    if (event.key !== 'Enter') return
    setTried(true)
    if (empty ? chosen.current : !asks || (chosen.current && strange.length === 0)) return
    event.preventDefault()
  }

  return {
    text,
    type,
    empty,
    groups,
    found,
    offers,
    strange,
    rest,
    tried,
    lost,
    choose,
    looking,
    onKeyDown,
    onFocus: () => setLooking(true),
    onBlur: () => setLooking(false),
  }
}

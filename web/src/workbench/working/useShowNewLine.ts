import { type RefObject, useEffect, useRef } from 'react'

/** Results arrive, and a line grows, for about this long after it was added. */
const growing = 2000

/** A line that has just been added is scrolled into view, and stays so while its results come in. */
export function useShowNewLine(list: RefObject<HTMLElement | null>, ids: readonly string[]) {
  const before = useRef(ids)
  useEffect(() => {
    const known = new Set(before.current)
    before.current = ids
    const added = ids.flatMap((id, i) => (known.has(id) ? [] : [i]))
    const item = list.current?.children[added[0] ?? -1]
    // A study that has just been opened, or taken from elsewhere, begins at its top.
    if (added.length !== 1 || !item || ids.length === 1) return
    const show = () => item.scrollIntoView({ block: 'nearest' })
    const grown = new ResizeObserver(show)
    const stop = () => grown.disconnect()
    show()
    grown.observe(item)
    const timer = setTimeout(stop, growing)
    const hand = new AbortController()
    for (const kind of ['wheel', 'pointerdown', 'keydown']) {
      list.current?.addEventListener(kind, stop, { signal: hand.signal, passive: true })
    }
    return () => {
      stop()
      clearTimeout(timer)
      hand.abort()
    }
  }, [list, ids])
}

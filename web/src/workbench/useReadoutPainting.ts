import type { Readout } from '@yperkine/core'
import { useEffectEvent, useLayoutEffect } from 'react'
import { useWorkbenchStore, type Workbench } from './store'

type Turn = () => void
const waiting: { even: Set<Turn>; odd: Set<Turn> } = { even: new Set(), odd: new Set() }
let isEven = true
let asked = 0

/** Lines take turns: each is written in every second frame, which is as fast as figures are read. */
function nextFrame() {
  asked = 0
  const due = isEven ? waiting.even : waiting.odd
  isEven = !isEven
  const turns = [...due]
  due.clear()
  for (const turn of turns) turn()
  if (waiting.even.size + waiting.odd.size > 0) asked = requestAnimationFrame(nextFrame)
}

const readoutOf = ({ evaluation }: Workbench, id: string, index: number) =>
  evaluation.lines.get(id)?.readouts[index]

const isMoving = ({ held, courses }: Workbench) => held !== null || courses !== null

/**
 * Calls back with a readout now and whenever it is another one, outside React: numbers that change
 * at every frame of a drag cost no rendering of components. While something moves lines take turns;
 * when it stops all is written at once.
 */
export function useReadoutPainting(
  id: string,
  index: number,
  number: number,
  paint: (readout: Readout) => void,
) {
  const store = useWorkbenchStore()
  const onReadout = useEffectEvent(paint)
  const write = useEffectEvent(() => {
    const readout = readoutOf(store.getState(), id, index)
    if (readout) onReadout(readout)
  })
  // Whatever is rendered anew is written anew.
  useLayoutEffect(() => write())
  useLayoutEffect(() => {
    const mine = number % 2 === 0 ? waiting.even : waiting.odd
    const turn = () => write()
    const stop = store.subscribe((now, before) => {
      const changed = readoutOf(now, id, index) !== readoutOf(before, id, index)
      if (changed && isMoving(now)) {
        mine.add(turn)
        asked ||= requestAnimationFrame(nextFrame)
      } else if (changed || (mine.has(turn) && !isMoving(now))) {
        mine.delete(turn)
        write()
      }
    })
    return () => {
      stop()
      mine.delete(turn)
    }
  }, [store, id, index, number])
}

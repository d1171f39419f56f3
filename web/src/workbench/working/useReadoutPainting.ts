import type { Readout } from '@yperkine/core'
import { useEffectEvent, useLayoutEffect } from 'react'
import { useWorkbenchStore, type Workbench } from '../store'

const readoutOf = ({ evaluation }: Workbench, id: string, index: number) =>
  evaluation.lines.get(id)?.readouts[index]

/**
 * Calls back with a readout now and whenever it is another one, outside React: numbers that change
 * at every frame of a drag cost no rendering of components, and change in the frame of their place.
 */
export function useReadoutPainting(id: string, index: number, paint: (readout: Readout) => void) {
  const store = useWorkbenchStore()
  const onReadout = useEffectEvent(paint)
  const write = useEffectEvent(() => {
    const readout = readoutOf(store.getState(), id, index)
    if (readout) onReadout(readout)
  })
  // Whatever is rendered anew is written anew.
  useLayoutEffect(() => write())
  useLayoutEffect(
    () =>
      store.subscribe((now, before) => {
        if (readoutOf(now, id, index) !== readoutOf(before, id, index)) write()
      }),
    [store, id, index],
  )
}

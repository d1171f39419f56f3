import {
  changeSlider,
  formatShort,
  readNumber,
  setFrame,
  sliderOfPlace,
  type Statement,
} from '@yperkine/core'
import { useEffect, useState } from 'react'
import { useStudy, useWorkbenchStore } from './store'

/** The classroom's distances, and on to where rounding takes over. */
const distances = [1, 0.1, 0.01, 0.001, 1e-4, 1e-5, 1e-6, 1e-8, 1e-10, 1e-12, 1e-14, 1e-16]
const rest = 900
/** A frame so many distances wide shows both ends. */
const frameWidths = 6

/** Walks the free slider of a secant's second end through ever smaller distances. */
export function useClosing(line: Extract<Statement, { kind: 'secant' }>) {
  const store = useWorkbenchStore()
  const slider = useStudy((s) => {
    const free = sliderOfPlace(line.to, s)
    return free && !free.place ? free.name : null
  })
  const [walk, setWalk] = useState<{ at: number; framed: boolean } | null>(null)
  useEffect(() => {
    if (!walk || slider === null) return
    const h = distances[walk.at]
    if (h === undefined) return
    const { apply, announce, history } = store.getState()
    const present = history.present.sliders.find((s) => s.name === slider)
    if (!present) return
    apply(
      changeSlider(slider, {
        value: h,
        from: Math.min(present.from, h),
        to: Math.max(present.to, h),
      }),
      'closing',
    )
    const at = readNumber(line.from, history.present.sliders)
    if (walk.framed && at.ok) {
      const half = Math.max(frameWidths * h, 1e-9 * Math.max(1, Math.abs(at.value)))
      apply(setFrame([at.value - half / 2, at.value + half]), 'closing')
    }
    const result = store.getState().evaluation.lines.get(line.id)
    const slope = result?.readouts.find((r) => r.label === 'slope')?.text
    announce(`${slider} = ${h >= 1e-6 ? formatShort(h, 6) : h}${slope ? `: slope ${slope}` : ''}`)
    const timer = setTimeout(() => {
      setWalk((now) => (now && now.at + 1 < distances.length ? { ...now, at: now.at + 1 } : null))
    }, rest)
    return () => clearTimeout(timer)
  }, [walk, slider, line.from, line.id, store])
  if (slider === null) return null
  return {
    slider,
    running: walk !== null,
    start: (framed: boolean) => setWalk({ at: 0, framed }),
    stop: () => setWalk(null),
  }
}

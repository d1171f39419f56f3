import { changeSlider, formatShort, readNumber, setFrame } from '@yperkine/core'
import { useEffect, useState } from 'react'
import { useWorkbenchStore } from './store'

const rest = 900
/** A frame so many distances wide shows both ends. */
const frameWidths = 6

interface Walk {
  slider: string
  from: string
  distances: readonly number[]
}

/** Walks a slider through ever smaller distances from a place; what a line says of it is spoken. */
export function useClosing(line: string, { slider, from, distances }: Walk) {
  const store = useWorkbenchStore()
  const [walk, setWalk] = useState<{ at: number; framed: boolean } | null>(null)
  useEffect(() => {
    if (!walk) return
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
    const at = readNumber(from, history.present.sliders)
    if (walk.framed && at.ok) {
      const half = Math.max(frameWidths * h, 1e-9 * Math.max(1, Math.abs(at.value)))
      apply(setFrame([at.value - half / 2, at.value + half]), 'closing')
    }
    const result = store.getState().evaluation.lines.get(line)
    const slope = result?.readouts.find((r) => r.id === 'slope')?.text
    announce(`${slider} = ${h >= 1e-6 ? formatShort(h, 6) : h}${slope ? `: slope ${slope}` : ''}`)
    const timer = setTimeout(() => {
      setWalk((now) => (now && now.at + 1 < distances.length ? { ...now, at: now.at + 1 } : null))
    }, rest)
    return () => clearTimeout(timer)
  }, [walk, slider, from, distances, line, store])
  return {
    running: walk !== null,
    start: (framed: boolean) => setWalk({ at: 0, framed }),
    stop: () => setWalk(null),
  }
}

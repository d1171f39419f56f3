import { enterSlider, nameToLatex, readNumber, type Slider, sliderText } from '@yperkine/core'
import { useRef, useState } from 'react'
import { EditableText } from '../parts/EditableText'
import { Maths } from '../parts/Maths'
import { useStudy, useWorkbenchStore } from './store'
import { Transport } from './Transport'
import { useMover } from './useMover'

/** A track for each slider of the study. */
export function Deck() {
  const sliders = useStudy((s) => s.sliders)
  return (
    <section
      aria-label="Deck"
      className="flex min-h-[84px] shrink-0 flex-wrap items-center gap-x-6 gap-y-2 overflow-y-auto border-t border-rule bg-paper px-4 py-2"
      style={{ maxHeight: 168 }}
    >
      {sliders.length === 0 && (
        <p className="text-quiet">
          Nothing moves yet. Say “tangent” on the right, and its place will have a track here.
        </p>
      )}
      {sliders.length > 0 && <Transport />}
      {sliders.map((slider) => (
        <Track key={slider.name} slider={slider} />
      ))}
    </section>
  )
}

const thumbRoom = 8

function Track({ slider }: { slider: Slider }) {
  const store = useWorkbenchStore()
  const track = useRef<HTMLDivElement>(null)
  const [entering, setEntering] = useState(false)
  const share = (slider.value - slider.from) / (slider.to - slider.from)
  const valueAt = (clientX: number) => {
    const { left, width } = track.current!.getBoundingClientRect()
    const part = (clientX - left - thumbRoom) / (width - 2 * thumbRoom)
    return slider.from + part * (slider.to - slider.from)
  }
  const mover = useMover(slider.name, valueAt, 12, { jumps: true })
  const tint = slider.place ? 'bg-rust' : 'bg-ink'
  const edge = slider.place ? 'border-rust' : 'border-ink'
  const at = `calc(${thumbRoom}px + ${share} * (100% - ${2 * thumbRoom}px))`
  const close = () => {
    setEntering(false)
    requestAnimationFrame(() => track.current?.focus())
  }

  return (
    <div className="w-[190px]">
      <div className="flex h-7 items-center justify-between">
        <Maths latex={nameToLatex(slider.name)} />
        {entering ? (
          <EditableText
            label={`${slider.name} exactly`}
            className="w-28 text-right"
            value={sliderText(slider).replace('−', '-')}
            check={(text) => {
              const read = readNumber(text, store.getState().history.present.sliders)
              return read.ok ? null : read.message
            }}
            onCommit={(text) => {
              const read = readNumber(text, store.getState().history.present.sliders)
              if (read.ok) store.getState().apply(enterSlider(slider.name, read.value))
            }}
            onClose={close}
          />
        ) : (
          <button
            type="button"
            tabIndex={-1}
            aria-label={`${slider.name} = ${sliderText(slider)}, enter exactly`}
            className="rounded-md px-1 font-semibold hover:bg-page"
            onClick={() => setEntering(true)}
          >
            {sliderText(slider)}
          </button>
        )}
      </div>
      <div
        ref={track}
        role="slider"
        tabIndex={0}
        aria-label={slider.name}
        aria-valuenow={slider.value}
        aria-valuemin={slider.from}
        aria-valuemax={slider.to}
        aria-valuetext={`${slider.name} = ${sliderText(slider)}`}
        data-step={slider.step}
        className="relative h-7 cursor-pointer touch-none rounded-md"
        {...mover}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault()
            setEntering(true)
          } else mover.onKeyDown(event)
        }}
      >
        <div className="absolute inset-x-0 top-1/2 h-1 -translate-y-1/2 rounded-full bg-rule" />
        <div
          className={`absolute top-1/2 left-0 h-1 -translate-y-1/2 rounded-full ${tint}`}
          style={{ width: at }}
        />
        <div
          className={`absolute top-1/2 h-4 w-2.5 -translate-x-1/2 -translate-y-1/2 rounded-[3px] border-2 bg-page ${edge}`}
          style={{ left: at }}
        />
      </div>
    </div>
  )
}

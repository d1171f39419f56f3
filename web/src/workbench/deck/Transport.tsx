import { motionSentence, movingSliders } from '@yperkine/core'
import { useState } from 'react'
import { SliderSettings } from '../settings/SliderSettings'
import { useHeadless, useReading, useStudy, useWorkbench, useWorkbenchStore } from '../store'

/** Step back, play, step forward; and what moves, how and at what pace. */
export function Transport() {
  const { play, pause, step } = useWorkbenchStore().getState()
  const playing = useWorkbench((s) => s.courses !== null)
  const names = useStudy((s) =>
    movingSliders(s)
      .map((m) => m.name)
      .join(' and '),
  )
  const reading = useReading()
  const headless = useHeadless()
  const sentence = useStudy(motionSentence)
  const [settings, setSettings] = useState(false)
  const edge = 'button whitespace-nowrap rounded-none border-ink/40 focus-visible:z-10'
  return (
    <div className="max-w-full shrink-0">
      <div className="flex">
        <button
          type="button"
          className={`${edge} rounded-l-md border-r-0`}
          onClick={() => step(-1)}
        >
          Step back
        </button>
        <button
          type="button"
          className={`${edge} button-primary min-w-[76px] justify-center`}
          onClick={playing ? pause : play}
        >
          {playing ? `Pause ${names}` : `Play ${names}`}
        </button>
        <button type="button" className={`${edge} rounded-r-md border-l-0`} onClick={() => step(1)}>
          Step forward
        </button>
      </div>
      {reading && !headless && (
        <p className="mt-1.5 text-[calc(14px*var(--type))] text-quiet">{sentence}</p>
      )}
      <button
        type="button"
        hidden={reading}
        className="mt-1.5 not-[[hidden]]:block max-w-[280px] truncate rounded-md text-left text-[calc(14px*var(--type))] text-quiet underline decoration-dotted underline-offset-4 hover:text-ink"
        onClick={() => setSettings(true)}
      >
        {sentence}
      </button>
      <SliderSettings open={settings} onClose={() => setSettings(false)} />
    </div>
  )
}

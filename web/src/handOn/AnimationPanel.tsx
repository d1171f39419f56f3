import { movingSliders } from '@yperkine/core'
import { useEffect, useRef, useState } from 'react'
import { Check } from '../parts/Check'
import { Panel } from '../parts/Panel'
import { saveBlob } from '../parts/saveAsFile'
import { useStudy, useWorkbenchStore } from '../workbench/store'
import { Choice } from './fields'
import type { ClipFormat, ClipSettings } from './clip'

interface Props {
  onClose: () => void
  onTrouble: (words: string) => void
}

const usual = { seconds: 8, perSecond: 20, width: 640, height: 400, thereAndBack: true }
const bounds = { seconds: [0.5, 60], width: [160, 1920], height: [120, 1080] } as const

/** A clip of what moves: which slider or the steps, how long, how large; with progress and stop. */
export function AnimationPanel({ onClose, onTrouble }: Props) {
  const store = useWorkbenchStore()
  const sliders = useStudy((s) => s.sliders)
  const steps = useStudy((s) => s.steps)
  const [first] = movingSliders(store.getState().shown)
  const [moves, setMoves] = useState(first?.name ?? (steps.length > 0 ? stepsValue : ''))
  const [settings, setSettings] = useState(usual)
  const [done, setDone] = useState<{ frames: number; of: number } | null>(null)
  const [video, setVideo] = useState<'asked' | 'yes' | 'no'>('asked')
  const stop = useRef<AbortController | null>(null)
  const set = (change: Partial<typeof usual>) => setSettings({ ...settings, ...change })
  const { width, height } = settings
  useEffect(() => {
    let gone = false
    void import('./clip')
      .then(({ encoderFor }) => encoderFor(width, height))
      .then(
        (found) => gone || setVideo(found ? 'yes' : 'no'),
        () => gone || setVideo('no'),
      )
    return () => {
      gone = true
    }
  }, [width, height])
  useEffect(() => () => stop.current?.abort(), [])
  const make = async (format: ClipFormat) => {
    const asked = new AbortController()
    stop.current = asked
    setDone({ frames: 0, of: 1 })
    try {
      const { clipFile } = await import('./clip')
      const options = clipSettings(settings, moves)
      const making = {
        onFrame: (frames: number, of: number) => setDone({ frames, of }),
        signal: asked.signal,
      }
      const { name, blob } = await clipFile(store, format, options, making)
      saveBlob(name, blob)
      store.getState().announce(`Animation made: ${sizeWords(blob.size)}`)
    } catch (error) {
      if (asked.signal.aborted) store.getState().announce('Animation stopped')
      else {
        const why = error instanceof Error ? error.message : 'the browser gave no reason'
        onTrouble(`The animation could not be made: ${why}. The study is as it was.`)
      }
    } finally {
      stop.current = null
      setDone(null)
    }
  }
  const choices: [string, string][] = [
    ...sliders.map(({ name, from, to }): [string, string] => [
      name,
      `${name}, from ${from} to ${to}`,
    ]),
    ...(steps.length > 0 ? [[stepsValue, `the ${steps.length} steps`] as [string, string]] : []),
  ]
  return (
    <Panel title="Animation" open onClose={onClose} width="w-[460px]">
      {choices.length === 0 ? (
        <p className="py-2">
          Nothing moves in this study yet: give it a slider, such as <em>tangent at a</em>, or keep
          a step.
        </p>
      ) : (
        <div className="grid gap-3 py-2">
          <Choice label="What moves" value={moves} options={choices} onChoose={setMoves} />
          <ClipFields settings={settings} onSet={set} />
          <First settings={settings} moves={moves} />
          {done === null ? (
            <div className="flex flex-wrap gap-2">
              <button type="button" className="button" onClick={() => void make('gif')}>
                Save as GIF
              </button>
              {video !== 'no' && (
                <button
                  type="button"
                  className="button"
                  disabled={video === 'asked'}
                  onClick={() => void make('webm')}
                >
                  Save as WebM
                </button>
              )}
            </div>
          ) : (
            <Progress {...done} onStop={() => stop.current?.abort()} />
          )}
          {video === 'no' && (
            <p className="text-quiet">
              This browser has no encoder of video: only a GIF can be made.
            </p>
          )}
        </div>
      )}
    </Panel>
  )
}

const clipSettings = (settings: typeof usual, moves: string): ClipSettings => ({
  ...settings,
  look: null,
  moves: moves === stepsValue ? 'steps' : { slider: moves },
})

/** The first frame as it will be. */
function First({ settings, moves }: { settings: typeof usual; moves: string }) {
  const store = useWorkbenchStore()
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const onto = canvas.current
    if (!onto) return
    // Without fonts nothing is shown; making the clip tells why.
    void import('./clip')
      .then(({ paintFirst }) => paintFirst(store, clipSettings(settings, moves), onto))
      .catch(() => undefined)
  }, [store, settings, moves])
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label="The first frame"
      className="max-h-[30vh] w-full rounded-md border border-rule object-contain"
    />
  )
}

interface FieldsProps {
  settings: typeof usual
  onSet: (change: Partial<typeof usual>) => void
}

/** How long, how smooth and how large. */
const ClipFields = ({ settings, onSet }: FieldsProps) => (
  <>
    <NumberField
      label="Seconds"
      value={settings.seconds}
      bounds={bounds.seconds}
      onSet={(seconds) => onSet({ seconds })}
    />
    <Choice
      label="Frames a second"
      value={String(settings.perSecond)}
      options={[
        ['10', '10'],
        ['20', '20'],
        ['25', '25'],
      ]}
      onChoose={(n) => onSet({ perSecond: Number(n) })}
    />
    <NumberField
      label="Width in pixels"
      value={settings.width}
      bounds={bounds.width}
      onSet={(w) => onSet({ width: Math.round(w) })}
    />
    <NumberField
      label="Height in pixels"
      value={settings.height}
      bounds={bounds.height}
      onSet={(h) => onSet({ height: Math.round(h) })}
    />
    <Check
      label="There and back, so that it goes on without a leap"
      on={settings.thereAndBack}
      onSet={(thereAndBack) => onSet({ thereAndBack })}
    />
  </>
)

interface ProgressProps {
  frames: number
  of: number
  onStop: () => void
}

/** How many frames are made, and the way to end it. */
const Progress = ({ frames, of, onStop }: ProgressProps) => (
  <div className="flex items-center gap-3">
    <progress className="min-w-0 flex-1" aria-label="Frames made" max={of} value={frames} />
    <span className="tabular-nums">
      {frames} of {of}
    </span>
    <button type="button" className="button" onClick={onStop}>
      Stop
    </button>
  </div>
)

/** No slider has this name. */
const stepsValue = 'the steps'

const sizeWords = (bytes: number) =>
  bytes < 1e6 ? `${Math.round(bytes / 1000)} KB` : `${(bytes / 1e6).toFixed(1)} MB`

interface NumberProps {
  label: string
  value: number
  bounds: readonly [number, number]
  onSet: (value: number) => void
}

/** A number between two bounds; what is none leaves the one before. */
function NumberField({ label, value, bounds: [least, most], onSet }: NumberProps) {
  const [text, setText] = useState<string | null>(null)
  const enter = () => {
    const read = Number((text ?? '').replace(',', '.'))
    if (text !== null && text.trim() !== '' && Number.isFinite(read)) {
      onSet(Math.min(most, Math.max(least, read)))
    }
    setText(null)
  }
  return (
    <label className="flex items-center justify-between gap-3">
      {label}
      <input
        className="field w-24 text-right"
        inputMode="decimal"
        value={text ?? String(value)}
        onChange={(e) => setText(e.target.value)}
        onBlur={enter}
        onKeyDown={(e) => {
          if (e.key === 'Enter') enter()
        }}
      />
    </label>
  )
}

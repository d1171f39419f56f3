import {
  enterSlider,
  fitFrame,
  type Flag,
  formatShort,
  nameToLatex,
  readNumber,
  renamePlace,
  setFrame,
  sliderOfPlace,
} from '@yperkine/core'
import { useRef, useState } from 'react'
import { EditableText } from '../parts/EditableText'
import { Maths } from '../parts/Maths'
import { BoundField } from './BoundField'
import { headWidth, pixelDecimals } from './Lanes'
import { useStudy, useWorkbench, useWorkbenchStore } from './store'
import { useFraming } from './useFraming'
import { useMover } from './useMover'

export const rulerHeight = 54

/** The axis under the lanes, with a flag for each place. */
export function Ruler() {
  const store = useWorkbenchStore()
  const { ticks, flags, width } = useWorkbench((s) => s.scene)
  const variable = useStudy((s) => s.variable)
  const [x0, x1] = useWorkbench((s) => s.scene.x)
  const strip = useRef<HTMLDivElement>(null)
  useFraming(strip, { across: true, lane: null })
  const bound = {
    step: 10 ** Math.floor(Math.log10((x1 - x0) / 10)),
    decimals: Math.max(0, Math.min(12, 2 - Math.floor(Math.log10(x1 - x0)))),
    className: 'w-16 min-h-6 px-1.5 py-0 text-[calc(13px*var(--type))]',
  }
  const { apply } = store.getState()
  const covered = (at: number, text: string) =>
    flags.some((f) => Math.abs(f.at - at) < text.length * 3.6 + flagWidth(f.text) / 2 + 2)
  const title = [variable.name, variable.unit && `(${variable.unit})`].filter(Boolean).join(' ')
  return (
    <div className="flex shrink-0 bg-paper" style={{ height: rulerHeight }}>
      <div
        className="flex shrink-0 items-center justify-center gap-2 border-r border-rule"
        style={{ width: headWidth }}
      >
        <Maths latex={nameToLatex(variable.letter)} />
        <button
          type="button"
          className="button min-h-7 px-2 text-[calc(13px*var(--type))]"
          onClick={() => store.getState().apply(fitFrame)}
        >
          Fit
        </button>
      </div>
      <div ref={strip} className="relative touch-none overflow-hidden" style={{ width }}>
        <svg width={width} height={rulerHeight} aria-hidden className="absolute inset-0">
          {ticks.map(({ at, text }) => (
            <g key={text}>
              <path d={`M${at} 0v6`} className="stroke-axis" />
              {!covered(at, text) && (
                <text
                  x={at}
                  y={19}
                  textAnchor="middle"
                  className="fill-quiet text-[calc(13px*var(--type))]"
                >
                  {text}
                </text>
              )}
            </g>
          ))}
          <text
            x={width / 2}
            y={45}
            textAnchor="middle"
            className="fill-quiet text-[calc(13px*var(--type))]"
          >
            {title}
          </text>
        </svg>
        <div className="absolute bottom-1 left-1.5">
          <BoundField
            {...bound}
            label={`${variable.letter} from`}
            value={x0}
            onEnter={(v) => apply(setFrame([v, x1]))}
          />
        </div>
        <div className="absolute right-1.5 bottom-1">
          <BoundField
            {...bound}
            label={`${variable.letter} to`}
            value={x1}
            onEnter={(v) => apply(setFrame([x0, v]))}
          />
        </div>
        {flags.map((flag) => (
          <PlaceFlag key={flag.fixed ? 'fixed' + flags.indexOf(flag) : flag.text} flag={flag} />
        ))}
      </div>
    </div>
  )
}

const plain = (text: string) => text.replaceAll('-', '−')

function PlaceFlag({ flag }: { flag: Flag }) {
  const store = useWorkbenchStore()
  const button = useRef<HTMLDivElement>(null)
  const [entering, setEntering] = useState(false)
  const { scene } = store.getState()
  const letter = useStudy((s) => s.variable.letter)
  const slider = useStudy((s) => sliderOfPlace(flag.text, s))
  const valueAt = (clientX: number) => {
    const now = store.getState().scene
    const { left } = button.current!.parentElement!.getBoundingClientRect()
    return now.x[0] + ((clientX - left) / now.width) * (now.x[1] - now.x[0])
  }
  const mover = useMover(flag.text, valueAt, pixelDecimals(scene.x, scene.width))
  const name = flag.fixed ? `Place ${letter} = ${plain(flag.text)}` : `Place ${flag.text}`
  const hidden = flag.at < -2 || flag.at > scene.width + 2
  const close = () => {
    setEntering(false)
    requestAnimationFrame(() => button.current?.focus())
  }

  return (
    <>
      <div
        ref={button}
        role="slider"
        tabIndex={0}
        aria-label={name}
        aria-valuenow={flag.value}
        aria-valuemin={slider?.from ?? scene.x[0]}
        aria-valuemax={slider?.to ?? scene.x[1]}
        aria-valuetext={`${letter} = ${formatShort(flag.value, 6)}`}
        data-step={slider?.step ?? 0.1}
        className="absolute top-0 flex h-8 min-w-11 -translate-x-1/2 cursor-grab touch-none justify-center rounded-md active:cursor-grabbing"
        style={{ left: flag.at, visibility: hidden ? 'hidden' : 'visible' }}
        {...mover}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault()
            setEntering(true)
          } else mover.onKeyDown(event)
        }}
        onDoubleClick={() => setEntering(true)}
      >
        <FlagShape text={flag.text} />
      </div>
      {entering && (
        <div
          className="absolute top-1 z-30"
          style={{ left: Math.min(flag.at + 14, scene.width - 130) }}
        >
          <ExactEntry flag={flag} onClose={close} />
        </div>
      )}
    </>
  )
}

const flagWidth = (text: string) => Math.max(18, 9 + text.length * 8)

function FlagShape({ text }: { text: string }) {
  const width = flagWidth(text)
  return (
    <svg width={width} height={26} className="mt-0.5 overflow-visible" aria-hidden>
      <path d={`M${width / 2} 0L${width} 9V25H0V9Z`} className="fill-rust" />
      <text
        x={width / 2}
        y={20}
        textAnchor="middle"
        className="fill-page font-serif text-[calc(14px*var(--type))] font-semibold italic select-none"
      >
        {plain(text)}
      </text>
    </svg>
  )
}

/** A small field that takes any expression for a place. */
function ExactEntry({ flag, onClose }: { flag: Flag; onClose: () => void }) {
  const store = useWorkbenchStore()
  const { sliders } = store.getState().history.present
  const own = sliders.find((s) => s.name === flag.text)
  return (
    <EditableText
      label={`${flag.text} exactly`}
      className="w-32"
      value={own ? formatShort(own.value, 12).replace('−', '-') : flag.text}
      check={(text) => {
        const read = readNumber(text, sliders)
        return read.ok ? null : read.message
      }}
      onCommit={(text) => {
        const read = readNumber(text, sliders)
        if (!read.ok) return
        const { apply, announce } = store.getState()
        apply(own ? enterSlider(own.name, read.value) : renamePlace(flag.text, text.trim()))
        announce(`${flag.text} = ${formatShort(read.value, 6)}`)
      }}
      onClose={onClose}
    />
  )
}

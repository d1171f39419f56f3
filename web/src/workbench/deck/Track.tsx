import {
  boundSlider,
  enterSlider,
  formatShort,
  nameToLatex,
  numberToFormula,
  readNumber,
  shareOfSlider,
  type SliderRole,
  type Slider,
  sliderRole,
  sliderText,
  sliderValueAt,
  snapToStep,
  type Study,
} from '@yperkine/core'
import { useRef, useState } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { EditableText } from '../../parts/EditableText'
import { Maths } from '../../parts/Maths'
import { setSteadyText } from '../../parts/setText'
import { useReading, useStudy, useWorkbenchStore } from '../store'
import { useMover } from '../gestures/useMover'
import { usePainting } from '../drawing/usePainting'

const thumbRoom = 8
/** Nearer to a named value than this a pointer is drawn to it, in pixels. */
const drawnFrom = 7
const noMarks: SliderRole['marks'] = []

const sliderOf = (study: Study, name: string) => study.sliders.find((s) => s.name === name)

/** Whether a slider stands on one of its steps; a stop at a condition or a typed value may lie between. */
const isOnGrid = (slider: Slider) =>
  Math.abs(snapToStep(slider, slider.value) - slider.value) <= 1e-9 * slider.step ||
  slider.value === slider.from ||
  slider.value === slider.to

/** How a value is written, and what more is told of one that lies between the steps of its slider. */
function writtenAs(slider: Slider): { number: string; title: string } {
  const number = sliderText(slider)
  if (isOnGrid(slider)) return { number, title: '' }
  return { number: `≈ ${number}`, title: `between its steps: ${formatShort(slider.value, 12)}` }
}

/** A value as it can be typed again. */
const typeable = (slider: Slider) => {
  const text = sliderText(slider)
  return text.includes('·') ? numberToFormula(slider.value) : text.replace('−', '-')
}

/** A slider by its track: dragged, stepped by keys, or typed exactly; on a wall in one line. */
export function Track({ name, plain = false }: { name: string; plain?: boolean }) {
  const store = useWorkbenchStore()
  // The value is written by the painting, at every frame; the rest seldom changes.
  const slider = useStudy(
    useShallow((s) => {
      const { value: _, ...rest } = sliderOf(s, name)!
      return rest
    }),
  )
  const role = useStudy(useShallow((s) => sliderRole(s, name)))
  const marks = role?.marks ?? noMarks
  const track = useRef<HTMLDivElement>(null)
  const [entering, setEntering] = useState(false)
  const valueAt = (clientX: number) => {
    const { left, width } = track.current!.getBoundingClientRect()
    const room = width - 2 * thumbRoom
    const part = (clientX - left - thumbRoom) / room
    const mark = marks.find(
      (m) => Math.abs(shareOfSlider(now()!, m.value) - part) * room < drawnFrom,
    )
    return mark ? mark.value : sliderValueAt(now()!, Math.max(0, Math.min(1, part)))
  }
  const mover = useMover(slider.name, valueAt, 12, { jumps: true })
  const tint = slider.place ? 'bg-rust' : 'bg-ink'
  const edge = slider.place ? 'border-rust' : 'border-ink'
  const now = () => sliderOf(store.getState().evaluation.study, name)
  const written = useRef<HTMLButtonElement>(null)
  const figures = useRef<HTMLSpanElement>(null)
  const way = useRef<HTMLDivElement>(null)
  const thumb = useRef<HTMLDivElement>(null)
  usePainting(() => {
    const present = now()
    // A slider that has just been removed is painted once more before its track goes.
    if (!present) return
    const { number, title } = writtenAs(present)
    written.current?.setAttribute('title', title)
    const mark = marks.find((m) => m.value === present.value)
    const text = mark ? mark.text : number
    const share = shareOfSlider(present, present.value)
    track.current!.setAttribute('aria-valuenow', String(present.value))
    track.current!.setAttribute(
      'aria-valuetext',
      mark ? `${name} = ${number}, ${mark.text}` : `${name} = ${number}`,
    )
    way.current!.style.width = `${share * 100}%`
    thumb.current!.style.left = `${share * 100}%`
    if (!figures.current) return
    setSteadyText(figures.current, text)
    written.current!.setAttribute('aria-label', `${name} = ${number}, enter exactly`)
  })
  const close = () => {
    setEntering(false)
    requestAnimationFrame(() => track.current?.focus())
  }

  return (
    <div
      className={
        plain
          ? 'flex max-w-[420px] min-w-[200px] flex-1 items-center gap-3'
          : 'max-w-[190px] min-w-[150px] flex-1 max-sm:max-w-none'
      }
    >
      <div className={`flex h-7 items-center justify-between ${plain ? 'gap-2' : ''}`}>
        <span className="flex items-baseline gap-1.5">
          <Maths latex={nameToLatex(slider.name)} />
          {role && <span className="text-[calc(13px*var(--type))] text-quiet">{role.words}</span>}
        </span>
        {entering ? (
          <ExactValue name={name} onClose={close} />
        ) : (
          <button
            ref={written}
            type="button"
            tabIndex={-1}
            className="min-w-12 rounded-md px-1 text-right font-semibold hover:bg-page"
            onClick={() => setEntering(true)}
          >
            <span ref={figures} data-figures className="steady">
              <span />
            </span>
          </button>
        )}
      </div>
      <div className={`relative h-7 pointer-coarse:h-11 ${plain ? 'min-w-0 flex-1' : ''}`}>
        <div className="absolute inset-x-0 top-1/2 -mt-0.5 h-1 rounded-full bg-rule" />
        <TrackMarks slider={slider} marks={marks} />
        {/* Moved by their boxes, and outside what is held: else all layers were gathered anew. */}
        <div className="absolute inset-x-0 top-1/2 -mt-0.5 h-1 px-2">
          <div ref={way} className={`h-full rounded-full ${tint}`} />
        </div>
        <div className="absolute inset-x-2 top-1/2">
          <div
            ref={thumb}
            className={`absolute -mt-2 -ml-[5px] h-4 w-2.5 rounded-[3px] border-2 bg-page ${edge}`}
          />
        </div>
        <div
          ref={track}
          role="slider"
          tabIndex={0}
          aria-label={slider.name}
          aria-valuemin={slider.from}
          aria-valuemax={slider.to}
          aria-valuenow={now()?.value ?? slider.from}
          data-step={slider.step}
          className="absolute inset-0 cursor-pointer touch-none rounded-md"
          {...mover}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault()
              setEntering(true)
            } else mover.onKeyDown(event)
          }}
        />
      </div>
      {!plain && <Reach slider={slider} />}
    </div>
  )
}

/** What a track does, in words; each number can be changed where it stands. */
function Reach({ slider }: { slider: Omit<Slider, 'value'> }) {
  const { name, from, to, step } = slider
  const reading = useReading()
  if (reading) {
    return (
      <p className="-mt-1 text-[calc(13px*var(--type))] text-quiet">
        from {formatShort(from, 9)} to {formatShort(to, 9)} by {formatShort(step, 9)}
      </p>
    )
  }
  return (
    <p className="-mt-1 flex flex-wrap items-center gap-x-1 text-[calc(13px*var(--type))] text-quiet">
      from <Bound name={name} member="from" value={from} />
      to <Bound name={name} member="to" value={to} />
      by <Bound name={name} member="step" value={step} />
    </p>
  )
}

interface BoundProps {
  name: string
  member: 'from' | 'to' | 'step'
  value: number
}

const boundWords = { from: 'from', to: 'to', step: 'by' }

function Bound({ name, member, value }: BoundProps) {
  const store = useWorkbenchStore()
  const button = useRef<HTMLButtonElement>(null)
  const [entering, setEntering] = useState(false)
  const text = formatShort(value, 9)
  const changed = (typed: string) => {
    const study = store.getState().shown
    const read = readNumber(typed, study.sliders)
    if (!read.ok) return { message: read.message }
    const edit = boundSlider(name, { [member]: read.value })
    return edit(study) === study && read.value !== value
      ? { message: member === 'step' ? 'a step is above 0' : 'it must begin below its end' }
      : { edit }
  }
  const close = () => {
    setEntering(false)
    requestAnimationFrame(() => button.current?.focus())
  }
  if (entering) {
    return (
      <EditableText
        label={`${name} ${boundWords[member]}`}
        className="w-20"
        value={text.replace('−', '-')}
        check={(typed) => changed(typed).message ?? null}
        onCommit={(typed) => {
          const { edit } = changed(typed)
          if (edit) store.getState().apply(edit)
        }}
        onClose={close}
      />
    )
  }
  return (
    <button
      ref={button}
      type="button"
      aria-label={`${name} ${boundWords[member]} ${text}, change`}
      className="hover:text-ink pointer-coarse:min-h-11 pointer-coarse:min-w-11"
      onClick={() => setEntering(true)}
    >
      <span className="border-b border-dotted border-edge">{text}</span>
    </button>
  )
}

/** A field for the exact value of a slider; it takes any expression. */
function ExactValue({ name, onClose }: { name: string; onClose: () => void }) {
  const store = useWorkbenchStore()
  const read = (text: string) => readNumber(text, store.getState().shown.sliders)
  return (
    <EditableText
      label={`${name} exactly`}
      className="w-28 text-right"
      value={typeable(sliderOf(store.getState().evaluation.study, name)!)}
      check={(text) => {
        const found = read(text)
        return found.ok ? null : found.message
      }}
      onCommit={(text) => {
        const found = read(text)
        if (found.ok) store.getState().apply(enterSlider(name, found.value))
      }}
      onClose={onClose}
    />
  )
}

/** Named values of a slider along its track. */
function TrackMarks({
  slider,
  marks,
}: {
  slider: Omit<Slider, 'value'>
  marks: SliderRole['marks']
}) {
  return marks.map((mark) => (
    <div key={mark.value} aria-hidden className="pointer-events-none absolute inset-x-2 top-1/2">
      <div
        className="absolute -mt-1.5 h-3 w-px bg-quiet"
        style={{
          left: `${100 * shareOfSlider({ ...slider, value: mark.value }, mark.value)}%`,
        }}
      />
    </div>
  ))
}

import {
  compareSigns,
  cutAt,
  formatShort,
  type LaneScene,
  moveCut,
  removeCut,
  setSignGuess,
  type SignGuess,
  startSignGuess,
  stretchEnds,
  turnSign,
} from '@yperkine/core'
import { type KeyboardEvent, type PointerEvent, useRef } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { newGesture } from '../gestures/gesture'
import { pixelOfValue, valueUnder } from '../gestures/axis'

type Named = Pick<LaneScene, 'id' | 'title' | 'curve' | 'order'>

const signText = (sign: 1 | -1 | null) => (sign === 1 ? '+' : sign === -1 ? '−' : '?')
const signWord = (sign: 1 | -1 | null) =>
  sign === 1 ? 'positive' : sign === -1 ? 'negative' : 'not marked'
const tints = { '+': 'bg-positive', '−': 'bg-negative', '?': 'bg-paper' }

/** From places on the axis to pixels of the lane and back, as the frame is now. */
function useAxis() {
  const { x, width } = useWorkbench(useShallow((s) => ({ x: s.scene.x, width: s.scene.width })))
  const at = (value: number) => pixelOfValue({ x, width }, value)
  return { at, axis: { x, width }, width }
}

/** Signs to be marked stretch by stretch at the foot of a covered lane. */
export function SignMarks({ lane, alone }: { lane: Named; alone: boolean }) {
  const store = useWorkbenchStore()
  const found = useWorkbench((s) => s.evaluation.curves.get(lane.curve))
  const marked = useStudy((s) => s.answers.signs[lane.id])
  const row = useRef<HTMLDivElement>(null)
  const { at, axis, width } = useAxis()
  if (!found?.ok) return null
  const guess = marked ?? startSignGuess(found.curve.from, found.curve.to)
  const set = (next: SignGuess, gesture?: string) =>
    store.getState().apply(setSignGuess(lane.id, next), gesture)
  const ends = stretchEnds(guess)
  const placeOf = (event: PointerEvent) => valueUnder(axis, row.current!, event.clientX)
  const cutLongest = () => {
    const lengths = ends.slice(1).map((e, i) => e - ends[i]!)
    const longest = lengths.indexOf(Math.max(...lengths))
    set(cutAt(guess, (ends[longest]! + ends[longest + 1]!) / 2))
  }
  return (
    <div
      role="group"
      aria-label={`Signs of ${lane.title}`}
      className="pointer-events-none absolute inset-x-0 bottom-0 z-20 overflow-hidden text-[calc(13px*var(--type))]"
    >
      <div className="flex items-center gap-2 px-2 pb-1">
        <span className="rounded-md bg-page px-1 text-quiet">
          {alone ? 'Cut' : 'Or mark signs: cut'} the axis where the sign changes, then press each
          stretch.
        </span>
        <button type="button" className="pill pointer-events-auto" onClick={cutLongest}>
          Cut
        </button>
      </div>
      <div
        ref={row}
        // The button above cuts by keyboard.
        role="presentation"
        title="Click to cut here"
        className="pointer-events-auto relative h-[calc(20px*var(--type))] cursor-col-resize border-t border-rule bg-paper pointer-coarse:h-11"
        // What is pressed here is no drawing.
        onPointerDown={(event) => event.stopPropagation()}
        onClick={(event) => {
          if (event.target !== event.currentTarget) return
          set(cutAt(guess, valueUnder(axis, event.currentTarget, event.clientX)))
        }}
      >
        {guess.cuts.map((cut, i) => (
          <CutHandle
            key={i}
            name={`Cut ${i + 1} of ${lane.title}`}
            value={cut}
            left={at(cut)}
            guess={guess}
            placeOf={placeOf}
            onMove={(x, gesture) => set(moveCut(guess, i, x), gesture)}
            onRemove={() => set(removeCut(guess, i))}
          />
        ))}
      </div>
      <div className="pointer-events-auto relative h-7 bg-page pointer-coarse:h-11">
        {guess.signs.map((sign, i) => {
          const [left, right] = [Math.max(0, at(ends[i]!)), Math.min(width, at(ends[i + 1]!))]
          const text = signText(sign)
          if (!(right > left)) return null
          return (
            <button
              key={i}
              type="button"
              aria-label={`From ${formatShort(ends[i]!, 2)} to ${formatShort(ends[i + 1]!, 2)}: ${signWord(sign)}`}
              className={`absolute inset-y-0 border-x border-rule font-semibold ${tints[text]}`}
              style={{ left, width: right - left }}
              onClick={() => set(turnSign(guess, i))}
            >
              {text}
            </button>
          )
        })}
      </div>
    </div>
  )
}

interface CutProps {
  name: string
  value: number
  left: number
  guess: SignGuess
  placeOf: (event: PointerEvent) => number
  onMove: (x: number, gesture: string) => void
  onRemove: () => void
}

function CutHandle({ name, value, left, guess, placeOf, onMove, onRemove }: CutProps) {
  const held = useRef<string | null>(null)
  const end = () => (held.current = null)
  const onKeyDown = (event: KeyboardEvent) => {
    const step = (guess.to - guess.from) / (event.shiftKey ? 1000 : 100)
    const by = { ArrowLeft: -step, ArrowDown: -step, ArrowRight: step, ArrowUp: step }[event.key]
    if (by !== undefined) onMove(value + by, `key.${name}`)
    else if (event.key === 'Delete' || event.key === 'Backspace') onRemove()
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuemin={guess.from}
      aria-valuemax={guess.to}
      aria-valuenow={value}
      aria-valuetext={formatShort(value, 3)}
      title="Drag it; double-click or Delete takes it away"
      className="absolute inset-y-0 w-4 -translate-x-1/2 cursor-ew-resize touch-none pointer-coarse:w-11"
      style={{ left }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = newGesture(`drag.${name}`)
      }}
      onPointerMove={(event) => {
        if (held.current) onMove(placeOf(event), held.current)
      }}
      onPointerUp={end}
      onPointerCancel={end}
      onDoubleClick={onRemove}
      onKeyDown={onKeyDown}
    >
      <div className="mx-auto h-full w-1 rounded-full bg-plum" />
    </div>
  )
}

/** The marked signs beside the uncovered graph, each with whether it is right. */
export function SignVerdicts({ lane }: { lane: Named }) {
  const guess = useStudy((s) => s.answers.signs[lane.id])
  const found = useWorkbench((s) => s.evaluation.curves.get(lane.curve))
  const { at, width } = useAxis()
  if (!guess || !found?.ok) return null
  const compared = compareSigns(found.curve.drawn(lane.order), guess)
  if (!compared) return null
  const ends = stretchEnds(guess)
  const words = { right: '✓', partly: '✓ in part', wrong: '✗' }
  return (
    <div
      role="group"
      aria-label={`Signs marked for ${lane.title}`}
      className="pointer-events-none absolute inset-x-0 bottom-[22px] z-10 h-5 text-[calc(13px*var(--type))]"
    >
      {guess.signs.map((sign, i) => {
        const verdict = compared.stretches[i]
        const [left, right] = [Math.max(0, at(ends[i]!)), Math.min(width, at(ends[i + 1]!))]
        if (!verdict || !(right > left)) return null
        return (
          <span
            key={i}
            className={`absolute inset-y-0 grid place-items-center overflow-hidden border-x-2 border-plum font-semibold whitespace-nowrap ${tints[signText(sign)]} ${verdict === 'right' ? '' : 'text-brick'}`}
            style={{ left, width: right - left }}
          >
            {signText(sign)} {words[verdict]}
          </span>
        )
      })}
    </div>
  )
}

/** "Your signs are right over 96 % of what you marked; 2 of 3 changes found, …" */
export function signsSentence(compared: NonNullable<ReturnType<typeof compareSigns>>): string {
  const { right, changes, found, furthest, missed } = compared
  const over = `Your signs are right over ${Math.round(100 * right)} % of what you marked`
  if (changes === 0) return `${over}; the sign never changes there.`
  const off = furthest === null ? '' : `, the furthest off by ${formatShort(furthest, 3)}`
  const first = missed[0]
  const lost = first === undefined ? '' : `; one near ${formatShort(first, 2)} is missing`
  return `${over}; ${found} of ${changes} ${changes === 1 ? 'change' : 'changes'} of sign found${off}${lost}.`
}

import {
  boundSlider,
  changeSlider,
  conditionProblems,
  curveMakers,
  chooseMoving,
  decimalsOfStep,
  letPlaceMove,
  type Manner,
  manners,
  type Motion,
  movingSliders,
  nameToLatex,
  type Slider,
} from '@yperkine/core'
import { useState } from 'react'
import { Maths } from '../../parts/Maths'
import { Panel } from '../../parts/Panel'
import { BoundField } from '../../parts/BoundField'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'

const headings = ['', 'from', 'to', 'step', 'moves', 'how', 'rests at features', 'seconds a pass']

const noSliders: readonly Slider[] = []

/** Bounds, step and motion of every slider. */
export function SliderSettings({ open, onClose }: { open: boolean; onClose: () => void }) {
  // While it is closed a drag changes nothing in it.
  const sliders = useStudy((s) => (open ? s.sliders : noSliders))
  return (
    <Panel title="Sliders and motion" open={open} onClose={onClose}>
      <table className="mt-3 border-separate border-spacing-x-2 border-spacing-y-2 max-sm:block">
        {/* On a phone each slider is a block, and each cell has its heading over it. */}
        <thead className="text-left text-[calc(13px*var(--type))] text-quiet max-sm:sr-only">
          <tr>
            {headings.map((heading) => (
              <th key={heading} scope="col" className="font-normal">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="max-sm:block">
          {sliders.map((slider) => (
            <Row key={slider.name} slider={slider} />
          ))}
        </tbody>
      </table>
      <LetMove />
    </Panel>
  )
}

/** Typed places stand still; each can be given a slider. */
export function LetMove() {
  const { apply, announce } = useWorkbenchStore().getState()
  const letter = useStudy((s) => s.variable.letter)
  const fixed = useWorkbench((s) =>
    s.scene.flags.flatMap((f) => (f.fixed ? [f.text] : [])).join('\n'),
  )
  if (fixed === '') return null
  return (
    <div className="flex flex-wrap gap-2">
      {fixed.split('\n').map((place) => {
        const name = `${letter} = ${place.replace('-', '−')}`
        return (
          <button
            key={place}
            type="button"
            className="button"
            onClick={() => {
              apply(letPlaceMove(place))
              announce(`${name} can move now`)
            }}
          >
            Let {name} move
          </button>
        )
      })}
    </div>
  )
}

function Row({ slider }: { slider: Slider }) {
  const { apply } = useWorkbenchStore().getState()
  const moves = useStudy((s) => movingSliders(s).some((m) => m.name === slider.name))
  const { name, from, to, step, motion } = slider
  const move = (change: Partial<Motion>) =>
    apply(changeSlider(name, { motion: { ...motion, ...change } }))
  const decimals = Math.max(3, decimalsOfStep(step))
  const field = { step, decimals, className: 'w-20' }
  return (
    <>
      <tr className="max-sm:grid max-sm:grid-cols-[4.5rem_minmax(0,1fr)_minmax(0,1fr)] max-sm:items-end max-sm:gap-3 max-sm:border-b max-sm:border-rule max-sm:py-3 max-sm:last:border-0">
        <th scope="row" className="pr-2 text-left font-normal max-sm:col-span-3">
          <span className="sr-only">{name}</span>
          <Maths latex={nameToLatex(name)} />
        </th>
        <td data-heading="from" className="settings-cell">
          <BoundField
            {...field}
            label={`${name} from`}
            value={from}
            onEnter={(v) => apply(boundSlider(name, { from: v }))}
          />
        </td>
        <td data-heading="to" className="settings-cell">
          <BoundField
            {...field}
            label={`${name} to`}
            value={to}
            onEnter={(v) => apply(boundSlider(name, { to: v }))}
          />
        </td>
        <td data-heading="step" className="settings-cell">
          <BoundField
            {...field}
            decimals={12}
            label={`${name} step`}
            value={step}
            onEnter={(v) => apply(boundSlider(name, { step: v }))}
          />
        </td>
        <td data-heading="moves" className="settings-cell sm:text-center">
          <input
            type="checkbox"
            aria-label={`${name} moves`}
            checked={moves}
            onChange={(e) => apply(chooseMoving(name, e.target.checked))}
          />
        </td>
        <td data-heading="how" className="settings-cell">
          <select
            aria-label={`How ${name} moves`}
            className="field max-sm:w-full"
            value={motion.manner}
            onChange={(e) => move({ manner: e.target.value as Manner })}
          >
            {manners.map((manner) => (
              <option key={manner}>{manner}</option>
            ))}
          </select>
        </td>
        <td data-heading="rests at features" className="settings-cell sm:text-center">
          <input
            type="checkbox"
            aria-label={`${name} rests at zeros and turning points`}
            checked={motion.pauses}
            onChange={(e) => move({ pauses: e.target.checked })}
          />
        </td>
        {motion.manner === 'in equal steps' ? (
          <td className="settings-cell flex items-center gap-1 max-sm:col-span-3">
            <BoundField
              {...field}
              className="w-16"
              step={1}
              decimals={0}
              label={`Steps of ${name}`}
              value={motion.stops}
              onEnter={(v) => move({ stops: Math.min(1000, Math.max(1, Math.round(v))) })}
            />
            <span className="text-quiet">steps, rest</span>
            <BoundField
              {...field}
              className="w-16"
              step={0.05}
              label={`Rest of ${name}`}
              value={motion.rest}
              onEnter={(v) => move({ rest: Math.min(60, Math.max(0.05, v)) })}
            />
            <span className="text-quiet">s</span>
          </td>
        ) : (
          <td data-heading="seconds a pass" className="settings-cell">
            <BoundField
              {...field}
              step={1}
              label={`Pace of ${name}`}
              value={motion.pace}
              onEnter={(v) => move({ pace: Math.min(3600, Math.max(0.1, v)) })}
            />
          </td>
        )}
      </tr>
      <tr className="max-sm:block">
        <td />
        <td colSpan={7} className="pb-2 max-sm:block">
          <InTurn slider={slider} onMove={move} />
        </td>
      </tr>
    </>
  )
}

interface InTurnProps {
  slider: Slider
  onMove: (change: Partial<Motion>) => void
}

/** When a slider's turn comes, how slow its first pass is, and where it stops. */
function InTurn({ slider: { name, motion }, onMove }: InTurnProps) {
  const store = useWorkbenchStore()
  const { shown } = store.getState()
  const curve = curveMakers(shown)[0]?.name ?? 'f'
  const [text, setText] = useState(motion.stop ?? '')
  const problem = text.trim() === '' ? null : (conditionProblems(text, shown)[0]?.message ?? null)
  const commit = () => {
    if (text.trim() === '') onMove({ stop: undefined })
    else if (!problem) onMove({ stop: text.trim() })
  }
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[calc(14px*var(--type))] text-quiet">
      <span className="flex items-center gap-1.5">
        in turn
        <BoundField
          className="w-14"
          step={1}
          decimals={0}
          label={`Turn of ${name}`}
          value={motion.turn ?? 1}
          onEnter={(v) => onMove({ turn: Math.min(20, Math.max(1, Math.round(v))) })}
        />
      </span>
      {motion.manner !== 'in equal steps' && (
        <span className="flex items-center gap-1.5">
          first pass
          <BoundField
            className="w-16"
            step={1}
            decimals={3}
            label={`First pass of ${name}`}
            value={motion.firstPass ?? motion.pace}
            onEnter={(v) => {
              const seconds = Math.min(3600, Math.max(0.1, v))
              onMove({ firstPass: seconds === motion.pace ? undefined : seconds })
            }}
          />
          s
        </span>
      )}
      <label className="flex items-center gap-1.5">
        stops when
        <input
          className="field w-44"
          aria-label={`Stops when, ${name}`}
          aria-invalid={problem !== null}
          placeholder={`such as ${curve}'(${name}) = 0`}
          spellCheck={false}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === 'Enter') commit()
          }}
        />
      </label>
      {problem && (
        <span role="alert" className="text-brick">
          {problem}
        </span>
      )}
    </div>
  )
}

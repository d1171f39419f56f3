import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { changeStep, duplicateStep, forgetGone, movingSliders, removeStep } from '@yperkine/core'
import { Ellipsis } from 'lucide-react'
import { useState } from 'react'
import { useHasTrails } from '../deck/DeckSwitches'
import { useStudy, useWorkbenchStore } from '../store'
import { useGone, useStepWords } from './useLesson'

/** What a step is called, asks and plays. */
export function AboutStep({ id }: { id: string }) {
  const store = useWorkbenchStore()
  const step = useStepWords(id)
  const moving = useStudy((s) =>
    movingSliders(s)
      .map((m) => m.name)
      .join(' and '),
  )
  const hasTrails = useHasTrails()
  if (!step) return null
  const { apply, announce, keepTrails } = store.getState()
  const change = (what: Parameters<typeof changeStep>[1]) => apply(changeStep(id, what))
  const plays = step.plays.map((p) => p.slider).join(' and ')
  const kept = Object.keys(step.trails).length > 0
  const playsNow = () =>
    change({
      plays: movingSliders(store.getState().shown).map(({ name, motion }) => ({
        ...{ slider: name, motion },
      })),
    })
  return (
    <Popover>
      <PopoverButton
        aria-label="About this step"
        title="About this step: its title, question, words and what it plays"
        className="button px-1.5 pointer-coarse:min-h-11 pointer-coarse:min-w-11"
      >
        <Ellipsis size={18} aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor="top end"
        className="popover z-30 grid w-96 max-w-[calc(100vw-16px)] gap-3 p-4"
      >
        <Words label="Title" value={step.title} onCommit={(title) => change({ title })} />
        <Words
          label="Question"
          hint="seen under the title when it is presented"
          value={step.question}
          onCommit={(question) => change({ question: question.slice(0, 600) })}
        />
        <Words
          label="Words to say"
          hint="seen in the speaker’s window alone"
          value={step.words}
          rows={4}
          onCommit={(words) => change({ words: words.slice(0, 4000) })}
        />
        {(moving !== '' || plays !== '') && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={step.plays.length > 0}
              onChange={(e) => (e.target.checked ? playsNow() : change({ plays: [] }))}
            />
            {plays === ''
              ? `Plays ${moving} when it is come to`
              : `Plays ${plays} when it is come to`}
          </label>
        )}
        {(hasTrails || kept) && (
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={kept} onChange={(e) => keepTrails(e.target.checked)} />
            Keeps its trails
          </label>
        )}
        {step.drawn.length > 0 && (
          <button
            type="button"
            className="pill justify-self-start"
            onClick={() => change({ drawn: [] })}
          >
            Wipe what is drawn on it
          </button>
        )}
        <div className="flex gap-2">
          <button
            type="button"
            className="button"
            onClick={() => {
              apply(duplicateStep(id))
              announce('Step duplicated')
            }}
          >
            Duplicate
          </button>
          <button
            type="button"
            className="button"
            onClick={() => {
              apply(removeStep(id))
              announce('Step removed')
            }}
          >
            Remove step
          </button>
        </div>
      </PopoverPanel>
    </Popover>
  )
}

interface WordsProps {
  label: string
  hint?: string
  value: string
  rows?: number
  onCommit: (text: string) => void
}

/** A field that keeps what was typed when it is left. */
function Words({ label, hint, value, rows = 1, onCommit }: WordsProps) {
  const [text, setText] = useState(value)
  const commit = () => {
    if (text !== value) onCommit(text)
  }
  const common = {
    className: 'field w-full',
    value: text,
    onBlur: commit,
  }
  return (
    <label className="grid gap-1">
      <span>
        {label}
        {hint && <span className="text-[calc(13px*var(--type))] text-quiet"> {hint}</span>}
      </span>
      {rows > 1 ? (
        <textarea
          {...common}
          aria-label={label}
          rows={rows}
          onChange={(e) => setText(e.target.value)}
        />
      ) : (
        <input
          {...common}
          aria-label={label}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') commit()
          }}
        />
      )}
    </label>
  )
}

/** Says what a step shows no longer, and forgets it. */
export function Gone({ id }: { id: string }) {
  const { apply } = useWorkbenchStore().getState()
  const gone = useGone(id)
  if (gone.length === 0) return null
  const names = gone.length > 1 ? `${gone.slice(0, -1).join(', ')} and ${gone.at(-1)!}` : gone[0]!
  return (
    <p role="status" className="flex items-center gap-2 text-[calc(14px*var(--type))] text-ochre">
      {names.charAt(0).toUpperCase() + names.slice(1)} {gone.length > 1 ? 'are' : 'is'} gone; the
      rest is shown.
      <button type="button" className="pill" onClick={() => apply(forgetGone(id))}>
        Forget {gone.length > 1 ? 'them' : 'it'}
      </button>
    </p>
  )
}

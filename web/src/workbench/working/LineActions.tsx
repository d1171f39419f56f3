import {
  actionsOf,
  addLine,
  changeLine,
  ledBySlider,
  type Edit,
  type LineAction,
  numberToFormula,
  type Statement,
  sweepSlider,
  toggleLane,
} from '@yperkine/core'
import { memo, useMemo } from 'react'
import { BoundField } from '../../parts/BoundField'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'

/** What a line can do beside its slots, in buttons of a word or two. */
export const LineActions = memo(function LineActions({
  line,
  speaks,
}: {
  line: Statement
  speaks: boolean
}) {
  // Made anew at each question, and nearly always the same: as text it can be compared.
  const told = useStudy((s) => JSON.stringify(actionsOf(line, s, speaks)))
  const actions = useMemo(() => JSON.parse(told) as readonly LineAction[], [told])
  return actions.map((action) => <Action key={action.id} line={line} action={action} />)
})

const pressed = 'pill pill-quiet aria-pressed:border-rust aria-pressed:text-rust'

interface ActionProps<K extends LineAction['does'] = LineAction['does']> {
  line: Statement
  action: Extract<LineAction, { does: K }>
}

function Action({ line, action }: ActionProps) {
  const { apply } = useWorkbenchStore().getState()
  switch (action.does) {
    case 'change':
      return (
        <button
          type="button"
          aria-pressed={action.pressed}
          className={pressed}
          onClick={() => apply(changeLine(line.id, { ...action.change }))}
        >
          {action.label}
        </button>
      )
    case 'add':
      return (
        <button
          type="button"
          className={pressed}
          onClick={() => apply(addLine(action.line as Statement))}
        >
          {action.label}
        </button>
      )
    case 'sweep':
      return <Sweep line={line} action={action} />
    case 'walk':
      return <Walk line={line} action={action} />
    case 'choose':
      return <Choices line={line} action={action} />
    case 'numbers':
      return <Numbers line={line} action={action} />
    case 'follow':
      return <Follow line={line} action={action} />
    case 'number':
      return (
        <span className="mt-1.5 inline-flex items-center gap-2">
          {action.words}
          <BoundField
            label={action.label}
            className="w-24"
            value={action.value}
            step={action.value / 10}
            decimals={12}
            onEnter={(v) => {
              if (v > 0) apply(changeLine(line.id, { [action.field]: numberToFormula(v) }))
            }}
          />
        </span>
      )
  }
}

/** So many stops make a sweep that can be followed, and so long it rests at each, in seconds. */
const [sweepStops, sweepRest] = [40, 0.25]

const both =
  (...edits: Edit[]): Edit =>
  (study) =>
    edits.reduce((now, edit) => edit(now), study)

function Sweep({ line, action }: ActionProps<'sweep'>) {
  const store = useWorkbenchStore()
  const sweep = () => {
    const { shown, pause, play, announce, apply } = store.getState()
    const { curve, order } = action.lane
    pause()
    const isShown = shown.lanes.some((l) => l.curve === curve && l.order === order)
    const { motion } = shown.sliders.find((s) => s.name === action.slider)!
    // Steps that someone has set stay.
    const isSet = motion.manner === 'in equal steps'
    const [stops, rest] = isSet ? [motion.stops, motion.rest] : [sweepStops, sweepRest]
    apply(
      both(
        changeLine(line.id, { ...action.change }),
        sweepSlider(action.slider, stops, rest),
        ...(isShown ? [] : [toggleLane(curve, order)]),
      ),
    )
    announce(`It goes over its span in ${stops} equal steps`)
    play()
  }
  return (
    <button type="button" className={pressed} onClick={sweep}>
      {action.label}
    </button>
  )
}

function Walk({ line, action }: ActionProps<'walk'>) {
  const running = useWorkbench((s) => s.walk?.walk.line === line.id)
  const { startWalk, stopWalk } = useWorkbenchStore().getState()
  const start = (framed: boolean) => {
    const { slider, from, distances } = action
    startWalk({ line: line.id, slider, from, distances, framed })
  }
  return (
    <>
      <button type="button" className={pressed} onClick={running ? stopWalk : () => start(false)}>
        {running ? 'Stop closing in' : action.label}
      </button>
      {!running && (
        <button type="button" className={pressed} onClick={() => start(true)}>
          Walk with the frame
        </button>
      )}
    </>
  )
}

/** Numbers that a line takes, each with what is usual where its field is empty. */
function Numbers({ line, action }: ActionProps<'numbers'>) {
  const store = useWorkbenchStore()
  return (
    <details className="mt-1.5 mr-1.5 inline-block">
      <summary className="pill cursor-pointer list-none">{action.label}</summary>
      <div className="mt-1 grid gap-1">
        {action.fields.map(({ field, words, text }) => (
          <label key={field} className="flex items-center gap-2">
            <span className="min-w-36">{words}</span>
            <input
              key={text}
              className="field w-28"
              aria-label={words}
              placeholder="usual"
              defaultValue={text}
              spellCheck={false}
              onBlur={({ target }) => {
                const typed = target.value.trim()
                if (typed === text) return
                store.getState().apply(changeLine(line.id, { [field]: typed || undefined }))
              }}
              onKeyDown={({ key, currentTarget }) => key === 'Enter' && currentTarget.blur()}
            />
          </label>
        ))}
      </div>
    </details>
  )
}

/** More stops than this would take longer than anyone looks on. */
const mostStops = 120

/** A slider leads through the rows of a table, one by one. */
function Follow({ line, action }: ActionProps<'follow'>) {
  const store = useWorkbenchStore()
  const follow = () => {
    const { evaluation, pause, play, announce, apply } = store.getState()
    const { tables = [] } = evaluation.lines.get(line.id) ?? {}
    const { bounds } = action
    const count = bounds
      ? bounds.to - bounds.from + 1
      : (tables.find(({ name }) => name === action.table)?.count ?? 0)
    if (count < 2) return
    pause()
    const from = bounds?.from ?? 1
    const by = Math.ceil((count - 1) / mostStops)
    const stops = Math.ceil((count - 1) / by)
    apply(
      ledBySlider(line.id, action.field, action.letter, { from, to: from + stops * by, step: by }),
    )
    const { lines } = store.getState().shown
    const name = String({ ...lines.find(({ id }) => id === line.id) }[action.field as never])
    apply(sweepSlider(name, stops, stops > 60 ? 0.12 : stops < 20 ? 0.6 : sweepRest))
    announce(`${name} goes through ${count} of them`)
    play()
  }
  return (
    <button type="button" className={pressed} onClick={follow}>
      {action.label}
    </button>
  )
}

function Choices({ line, action }: ActionProps<'choose'>) {
  const { apply } = useWorkbenchStore().getState()
  const chosen = action.options.filter((o) => o.chosen).map((o) => o.value)
  return (
    <details className="mt-1.5 mr-1.5 inline-block">
      <summary className="pill cursor-pointer list-none">{action.label}</summary>
      <fieldset className="mt-1 grid gap-1">
        <legend className="sr-only">{action.label}</legend>
        {action.options.map((option) => {
          const next = action.all.filter((value) =>
            value === option.value ? !option.chosen : chosen.includes(value),
          )
          return (
            <label key={option.value} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={option.chosen}
                disabled={option.fixed}
                onChange={() =>
                  apply(changeLine(line.id, { ...(option.change ?? { [action.field]: next }) }))
                }
              />
              {option.text}
            </label>
          )
        })}
      </fieldset>
    </details>
  )
}

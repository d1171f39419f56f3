import {
  addLine,
  changeLine,
  columnTitle,
  type Edit,
  numberToFormula,
  readingColumns,
  readNumber,
  sliderOfPlace,
  type Statement,
  sweepSlider,
  tableColumns,
  toggleLane,
} from '@yperkine/core'
import { memo } from 'react'
import { BoundField } from './BoundField'
import { useStudy, useWorkbenchStore } from './store'
import { useClosing } from './useClosing'

type Of<K extends Statement['kind']> = Extract<Statement, { kind: K }>

/** What a line can do beside its slots, in buttons of a word or two. */
export const LineActions = memo(function LineActions({
  line,
  speaks,
}: {
  line: Statement
  speaks: boolean
}) {
  switch (line.kind) {
    case 'tangent':
      return speaks ? <TangentActions line={line} /> : null
    case 'value':
      return <TrailAction line={line} />
    case 'secant':
      return <SecantActions line={line} />
    case 'table':
      return <TableActions line={line} />
    case 'features':
      return <FeatureActions line={line} />
    case 'distance':
      return <DigitsAction line={line} />
    case 'area':
      return <AreaActions line={line} />
    case 'readings':
      return <ReadingsActions line={line} />
    default:
      return null
  }
})

const pressed = 'pill mt-1.5 mr-1.5 aria-pressed:border-rust aria-pressed:text-rust'

/** So many stops make a sweep that can be followed, and so long it rests at each, in seconds. */
const [sweepStops, sweepRest] = [40, 0.25]

const both =
  (...edits: Edit[]): Edit =>
  (study) =>
    edits.reduce((now, edit) => edit(now), study)

function TangentActions({ line }: { line: Of<'tangent'> }) {
  const store = useWorkbenchStore()
  const slider = useStudy((s) => sliderOfPlace(line.place, s)?.name ?? null)
  const { apply } = store.getState()
  const sweep = () => {
    const { history, pause, play, announce } = store.getState()
    pause()
    const shown = history.present.lanes.some(
      (l) => l.curve === line.curve && l.order === line.order + 1,
    )
    apply(
      both(
        changeLine(line.id, { trail: true, extent: 'short' }),
        sweepSlider(slider!, sweepStops, sweepRest),
        ...(shown ? [] : [toggleLane(line.curve, line.order + 1)]),
      ),
    )
    announce(`The tangent goes over its span in ${sweepStops} equal steps`)
    play()
  }
  return (
    <>
      <button
        type="button"
        aria-pressed={line.extent === 'whole'}
        className={pressed}
        onClick={() =>
          apply(changeLine(line.id, { extent: line.extent === 'whole' ? 'short' : 'whole' }))
        }
      >
        Whole line
      </button>
      {slider && (
        <>
          <TrailAction line={line} />
          <button type="button" className={pressed} onClick={sweep}>
            Sweep
          </button>
        </>
      )}
    </>
  )
}

/** What a moving place has passed stays drawn, so that a graph grows as it moves. */
function TrailAction({ line }: { line: Of<'tangent' | 'value'> }) {
  const { apply } = useWorkbenchStore().getState()
  const moves = useStudy((s) => sliderOfPlace(line.place, s) !== null)
  if (!moves) return null
  return (
    <button
      type="button"
      aria-pressed={line.trail === true}
      className={pressed}
      onClick={() => apply(changeLine(line.id, { trail: !line.trail }))}
    >
      {line.kind === 'tangent' ? 'Trail of slopes' : 'Trail'}
    </button>
  )
}

function SecantActions({ line }: { line: Of<'secant'> }) {
  const { apply } = useWorkbenchStore().getState()
  const closing = useClosing(line)
  return (
    <>
      <button
        type="button"
        aria-pressed={line.closing}
        className={pressed}
        onClick={() => apply(changeLine(line.id, { closing: !line.closing }))}
      >
        Closing in
      </button>
      {closing && (
        <>
          <button
            type="button"
            className={pressed}
            onClick={closing.running ? closing.stop : () => closing.start(false)}
          >
            {closing.running ? 'Stop closing in' : `Walk ${closing.slider} to 0`}
          </button>
          {!closing.running && (
            <button type="button" className={pressed} onClick={() => closing.start(true)}>
              Walk with the frame
            </button>
          )}
        </>
      )}
    </>
  )
}

const useIsMeasured = (curve: string) =>
  useStudy((s) => s.lines.some((l) => l.kind === 'readings' && l.name === curve))

function TableActions({ line }: { line: Of<'table'> }) {
  const { apply } = useWorkbenchStore().getState()
  const letter = useStudy((s) => s.variable.letter)
  const measured = useIsMeasured(line.curve) && line.order === 0
  const fit: Statement = {
    kind: 'fit',
    id: '',
    curve: line.curve,
    order: line.order,
    column: line.columns.includes('central') ? 'central' : 'f(x)',
    shape: 'quadratic',
  }
  const name = line.curve + '′'.repeat(line.order)
  return (
    <>
      <details className="mt-1.5 inline-block">
        <summary className="pill cursor-pointer list-none">Columns</summary>
        <fieldset className="mt-1 grid gap-1">
          <legend className="sr-only">Columns of the table</legend>
          {(measured ? readingColumns : tableColumns).map((column) => {
            const chosen = line.columns.includes(column)
            const next = tableColumns.filter((c) =>
              c === column ? !chosen : line.columns.includes(c),
            )
            return (
              <label key={column} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  checked={chosen}
                  disabled={column === 'x' || next.length === 0}
                  onChange={() => apply(changeLine(line.id, { columns: next }))}
                />
                {columnTitle(column, name, letter)}
              </label>
            )
          })}
        </fieldset>
      </details>
      <button type="button" className="pill mt-1.5 ml-1.5" onClick={() => apply(addLine(fit))}>
        Fit a formula
      </button>
    </>
  )
}

function ReadingsActions({ line }: { line: Of<'readings'> }) {
  const { apply } = useWorkbenchStore().getState()
  const fit: Statement = {
    kind: 'fit',
    id: '',
    curve: line.name,
    order: 0,
    column: 'f(x)',
    shape: 'cubic',
  }
  return (
    <button type="button" className="pill mt-1.5" onClick={() => apply(addLine(fit))}>
      Fit a formula
    </button>
  )
}

function AreaActions({ line }: { line: Of<'area'> }) {
  const store = useWorkbenchStore()
  const { apply } = store.getState()
  const tolerance = useStudy((s) => {
    const read = readNumber(line.tolerance, s.sliders)
    return read.ok ? read.value : 0.001
  })
  // Between readings the curve is not known: there is no error to look at.
  if (useIsMeasured(line.curve)) return null
  return (
    <>
      <button
        type="button"
        aria-pressed={line.convergence}
        className={pressed}
        onClick={() => apply(changeLine(line.id, { convergence: !line.convergence }))}
      >
        Convergence
      </button>
      {line.rule === 'random' && (
        <button
          type="button"
          className={pressed}
          onClick={() => apply(changeLine(line.id, { seed: line.seed + 1 }))}
        >
          Other places
        </button>
      )}
      {line.convergence && (
        <span className="mt-1.5 inline-flex items-center gap-2">
          error under
          <BoundField
            label="Error under"
            className="w-24"
            value={tolerance}
            step={tolerance / 10}
            decimals={12}
            onEnter={(v) => {
              if (v > 0) apply(changeLine(line.id, { tolerance: numberToFormula(v) }))
            }}
          />
        </span>
      )}
    </>
  )
}

function FeatureActions({ line }: { line: Of<'features'> }) {
  const { apply } = useWorkbenchStore().getState()
  return (
    <>
      <button
        type="button"
        aria-pressed={line.labels}
        className={pressed}
        onClick={() => apply(changeLine(line.id, { labels: !line.labels }))}
      >
        Words in the picture
      </button>
      <button
        type="button"
        aria-pressed={line.ends}
        className={pressed}
        onClick={() => apply(changeLine(line.id, { ends: !line.ends }))}
      >
        Ends belong to it
      </button>
    </>
  )
}

/** As many digits as are ever shown, where they are certain. */
const allDigits = 12

function DigitsAction({ line }: { line: Of<'distance'> }) {
  const { apply } = useWorkbenchStore().getState()
  const more = line.digits !== undefined
  return (
    <button
      type="button"
      aria-pressed={more}
      className={pressed}
      onClick={() => apply(changeLine(line.id, { digits: more ? undefined : allDigits }))}
    >
      More digits
    </button>
  )
}

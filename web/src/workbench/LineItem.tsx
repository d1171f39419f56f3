import {
  addSlider,
  changeFormula,
  changeLine,
  type Edit,
  giveValue,
  type LineProblem,
  type Phrase,
  placeSlider,
  type Readout,
  removeLine,
  sentenceText,
  type Statement,
} from '@yperkine/core'
import { X } from 'lucide-react'
import { memo } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { Slot } from './Slot'
import { useStudy, useWorkbench, useWorkbenchStore } from './store'

const samples = ['', '6 3.5', '0.1 4', '7 3 0.1 3']
const curveStrokes = ['stroke-kelp', 'stroke-slate', 'stroke-plum', 'stroke-moss', 'stroke-umber']

/** One line of working: its sentence with slots, its results, and what is in its way. */
export const LineItem = memo(function LineItem({
  line,
  number,
}: {
  line: Statement
  number: number
}) {
  const store = useWorkbenchStore()
  const phrases = useWorkbench((s) => s.evaluation.sentences.get(line.id))
  // Readouts change at every frame of a drag; the rest of the line seldom does.
  const said = useWorkbench(
    useShallow((s) => {
      const result = s.evaluation.lines.get(line.id)
      const { problems = [], hints = [], readouts = [], notes = [] } = result ?? {}
      return {
        problems: kept(problems),
        hints: kept(hints),
        notes: kept(notes),
        speaks: readouts.length > 0,
      }
    }),
  )
  const touched = useWorkbench(
    (s) => s.selectedPlace !== null && 'place' in line && line.place === s.selectedPlace,
  )
  if (!phrases) return null
  const { apply } = store.getState()
  const unreadable = said.problems.find((p) => p.at && line.kind === 'curve')

  return (
    <li
      aria-label={sentenceText(phrases)}
      className={`group relative flex gap-1 border-b [contain:layout] border-rule py-2.5 pr-3 pl-[18px] ${touched ? 'bg-chosen' : ''}`}
    >
      <span
        aria-hidden
        className="w-3 shrink-0 pt-0.5 font-serif text-[calc(13px*var(--type))] text-quiet italic"
      >
        {number}
      </span>
      <div className="min-w-0 flex-1">
        <div className="font-serif text-[calc(17px*var(--type))] leading-[1.45]">
          <LineSample line={line} />
          {phrases.map((phrase, i) => (
            <PhraseView key={i} line={line} phrase={phrase} problem={unreadable} />
          ))}
        </div>
        {said.speaks && <Readouts id={line.id} />}
        {line.kind === 'tangent' && said.speaks && (
          <button
            type="button"
            aria-pressed={line.extent === 'whole'}
            className="pill mt-1.5 aria-pressed:border-rust aria-pressed:text-rust"
            onClick={() =>
              apply(changeLine(line.id, { extent: line.extent === 'whole' ? 'short' : 'whole' }))
            }
          >
            Whole line
          </button>
        )}
        {said.notes.map((note) => (
          <p key={note} className="mt-1 text-[calc(14px*var(--type))] text-quiet">
            {note}
          </p>
        ))}
        {said.problems.map((problem) => (
          <ProblemView key={problem.message} line={line} problem={problem} />
        ))}
        {said.hints.map((hint) => (
          <p key={hint.message} className="mt-1 text-quiet">
            {hint.message}{' '}
            {line.kind === 'curve' && (
              <button
                type="button"
                className="pill"
                onClick={() => apply(changeFormula(line.id, mended(line.formula, hint)))}
              >
                Use it
              </button>
            )}
          </p>
        ))}
      </div>
      <button
        type="button"
        aria-label={`Remove line ${number}`}
        className="absolute top-1 right-1 grid size-7 bg-page place-items-center rounded-md text-quiet opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-ink focus-visible:opacity-100"
        onClick={() => {
          apply(removeLine(line.id))
          store.getState().announce('Line removed')
        }}
      >
        <X size={16} aria-hidden />
      </button>
    </li>
  )
})

const mended = (formula: string, hint: { from: number; to: number; replacement: string }) =>
  formula.slice(0, hint.from) + hint.replacement + formula.slice(hint.to)

/** The stroke a curve is drawn with, in front of its sentence. */
function LineSample({ line }: { line: Statement }) {
  const index = useStudy((s) =>
    s.lines
      .filter((l) => l.kind === 'curve')
      .findIndex(
        (l) => l.name === (line.kind === 'curve' ? line.name : 'curve' in line && line.curve),
      ),
  )
  if ((line.kind !== 'curve' && line.kind !== 'rate') || index < 0) return null
  const order = line.kind === 'rate' ? line.order : 0
  return (
    <svg width="28" height="10" className="mr-2 inline-block align-middle" aria-hidden>
      <path
        d="M1.5 5H26.5"
        className={curveStrokes[index % 5]}
        strokeWidth="3"
        strokeDasharray={samples[order] || undefined}
        strokeLinecap={order > 1 ? 'round' : 'butt'}
      />
    </svg>
  )
}

function PhraseView({
  line,
  phrase,
  problem,
}: {
  line: Statement
  phrase: Phrase
  problem: LineProblem | undefined
}) {
  if (!('slot' in phrase)) return <span className="whitespace-pre-wrap">{phrase.text}</span>
  return (
    <Slot line={line} phrase={phrase} problem={phrase.slot === 'formula' ? problem : undefined} />
  )
}

/** Nothing to say is the same nothing each time. */
const nothing: readonly never[] = []
const kept = <T,>(all: readonly T[]): readonly T[] => (all.length === 0 ? nothing : all)

/** What stands under a sentence. */
function Readouts({ id }: { id: string }) {
  const readouts = useWorkbench((s) => s.evaluation.lines.get(id)?.readouts) ?? nothing
  return (
    <div className="mt-0.5 flex flex-wrap items-baseline gap-x-4 gap-y-1">
      {readouts.map((readout) => (
        <ReadoutView key={readout.label} readout={readout} />
      ))}
    </div>
  )
}

function ReadoutView({ readout }: { readout: Readout }) {
  const { label, text, value, exact } = readout
  return (
    <span className="whitespace-nowrap">
      <span aria-hidden className="mr-1.5 text-quiet">
        {label}
      </span>
      <output
        aria-label={label}
        aria-live="off"
        className={label === 'line' ? 'font-serif text-[calc(16px*var(--type))]' : 'font-semibold'}
        {...(value === undefined ? {} : { 'data-value': String(value) })}
      >
        {label === 'line' ? <Equation text={text} /> : text}
      </output>
      {exact && (
        <span
          className="ml-2 text-quiet"
          title={exact.proven ? 'worked out exactly' : 'all digits agree; that is no proof'}
        >
          {exact.proven ? 'exactly' : 'likely'}{' '}
          <span className="font-serif text-[calc(16px*var(--type))]">{exact.text}</span>
        </span>
      )}
    </span>
  )
}

/** An equation with its letters in italics; what it says as text stays as it is. */
function Equation({ text }: { text: string }) {
  return text
    .split(/(\p{L}[₀-₉]*)/u)
    .map((part, i) => (i % 2 === 1 ? <i key={i}>{part}</i> : <span key={i}>{part}</span>))
}

function ProblemView({ line, problem }: { line: Statement; problem: LineProblem }) {
  const { apply, history } = useWorkbenchStore().getState()
  const { message, fix, missing, at } = problem
  const give: Edit | null =
    missing === undefined
      ? null
      : line.kind === 'curve'
        ? giveValue(missing)
        : addSlider(placeSlider(history.present, missing))
  const replacement = at?.replacement
  return (
    <p role="alert" className="mt-1 text-[calc(14px*var(--type))] text-brick">
      {message}
      {fix && <span className="text-quiet"> · {fix}</span>}
      {give && (
        <button type="button" className="pill ml-2 text-ink" onClick={() => apply(give)}>
          Give {missing} a value
        </button>
      )}
      {line.kind === 'curve' && at && replacement && (
        <button
          type="button"
          className="pill ml-2 text-ink"
          onClick={() =>
            apply(changeFormula(line.id, mended(line.formula, { ...at, replacement })))
          }
        >
          Use {replacement}
        </button>
      )}
    </p>
  )
}

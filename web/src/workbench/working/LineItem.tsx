import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { keepTogether } from '../../parts/keepTogether'
import {
  addSlider,
  retype,
  type Edit,
  giveValue,
  isFormulaLine,
  type LineProblem,
  placeSlider,
  placesOfLine,
  removeLine,
  sentenceText,
  type Statement,
} from '@yperkine/core'
import { ListChecks, X } from 'lucide-react'
import { memo, type MouseEvent, useState } from 'react'
import { ConditionSlot } from './ConditionSlot'
import { LineActions } from './LineActions'
import { LineHandle } from './LineHandle'
import { LineLookButton } from './LineLookButton'
import { FurtherResults, Readouts } from './LineResults'
import { PendingWork } from './PendingWork'
import { LineSample, PhraseView } from './Sentence'
import { useWorkbench, useWorkbenchStore } from '../store'
import { useSaid } from './useSaid'
import { useTint } from './useTint'

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
  const said = useSaid(line)
  const touched = useWorkbench(
    (s) => s.selectedPlace !== null && placesOfLine(line).includes(s.selectedPlace),
  )
  const sortable = useSortable({ id: line.id })
  const off = useWorkbench((s) => s.evaluation.off.has(line.id))
  const [condition, setCondition] = useState(false)
  const tint = useTint(line)
  if (!phrases) return null
  const { apply } = store.getState()
  const unreadable = said.problems.find((p) => p.at && isFormulaLine(line))

  return (
    <li
      ref={sortable.setNodeRef}
      style={{
        transform: CSS.Translate.toString(sortable.transform),
        transition: sortable.transition,
      }}
      aria-label={sentenceText(phrases)}
      className={`group relative flex gap-1 border-b [contain:layout] border-rule py-2.5 pr-3 pl-[18px] ${sortable.isDragging ? 'z-20 bg-chosen' : touched ? 'bg-chosen' : ''} ${tint}`}
    >
      <LineHandle number={number} sortable={sortable} />
      <div className="min-w-0 flex-1">
        <div
          className={`font-serif text-[calc(17px*var(--type))] leading-[1.45] ${off ? 'opacity-60' : ''}`}
        >
          <LineSample line={line} />
          {phrases.map((phrase, i) => (
            <PhraseView key={i} line={line} phrase={phrase} problem={unreadable} />
          ))}
        </div>
        <ConditionSlot line={line} editing={condition} onEdit={setCondition} />
        {said.problems.map((problem) => (
          <ProblemView key={problem.message} line={line} problem={problem} />
        ))}
        {said.speaks && <Readouts id={line.id} />}
        <PendingWork id={line.id} name={sentenceText(phrases)} />
        <div className="mt-1 flex min-h-7 flex-wrap items-center gap-1.5">
          <LineActions line={line} speaks={said.speaks} />
          <LineTools line={line} number={number} onCondition={() => setCondition(true)} />
        </div>
        {said.notes.map((note) => (
          <p key={note} className="mt-1 text-[calc(14px*var(--type))] text-quiet">
            {keepTogether(note)}
          </p>
        ))}
        <FurtherResults line={line} />
        {said.hints.map((hint) => (
          <p key={hint.message} className="mt-1 text-quiet">
            {hint.message}{' '}
            {isFormulaLine(line) && (
              <button
                type="button"
                className="pill"
                onClick={() => apply(retype(line.id, mended(line.formula, hint)))}
              >
                Use it
              </button>
            )}
          </p>
        ))}
      </div>
    </li>
  )
})

const mended = (formula: string, hint: { from: number; to: number; replacement: string }) =>
  formula.slice(0, hint.from) + hint.replacement + formula.slice(hint.to)

interface LineToolsProps {
  line: Statement
  number: number
  onCondition: () => void
}

/** What can be done with any line, at the end of its row of buttons: quiet until one is at the line. */
function LineTools({ line, number, onCondition }: LineToolsProps) {
  const store = useWorkbenchStore()
  const remove = (event: MouseEvent<HTMLButtonElement>) => {
    const { apply, announce } = store.getState()
    moveFocusOn(event.currentTarget)
    apply(removeLine(line.id))
    announce('Line removed')
  }
  return (
    <span className="ml-auto flex">
      <LineLookButton line={line} number={number} />
      <button
        type="button"
        aria-label={`Condition of line ${number}`}
        title="Show it only while …"
        className={`line-tool ${line.when === undefined ? '' : 'is-kept'}`}
        onClick={onCondition}
      >
        <ListChecks size={15} aria-hidden />
      </button>
      <button
        type="button"
        aria-label={`Remove line ${number}`}
        title="Remove this line"
        className="line-tool"
        onClick={remove}
      >
        <X size={15} aria-hidden />
      </button>
    </span>
  )
}

/** From a line that goes the focus moves to its neighbour, or to where the next one is said. */
function moveFocusOn(button: HTMLElement) {
  const item = button.closest('li')
  const at = item?.nextElementSibling ?? item?.previousElementSibling
  const next =
    at?.querySelector<HTMLElement>('[data-handle]') ?? document.getElementById('say-what-to-add')
  next?.focus()
}

function ProblemView({ line, problem }: { line: Statement; problem: LineProblem }) {
  const { apply, shown } = useWorkbenchStore().getState()
  const { message, fix, missing, at } = problem
  const give: Edit | null =
    missing === undefined
      ? null
      : isFormulaLine(line)
        ? giveValue(missing)
        : addSlider(placeSlider(shown, missing))
  // Where a text could mean several things, each is one press away.
  const uses = at ? [...(at.replacement ? [at.replacement] : []), ...(at.choices ?? [])] : []
  return (
    <p role="alert" className="mt-1 text-[calc(14px*var(--type))] text-brick">
      {keepTogether(message)}
      {fix && <span className="text-quiet"> · {fix}</span>}
      {give && (
        <button type="button" className="pill ml-2 text-ink" onClick={() => apply(give)}>
          Give a value to {missing}
        </button>
      )}
      {isFormulaLine(line) &&
        at &&
        uses.map((replacement) => (
          <button
            key={replacement}
            type="button"
            className="pill ml-2 text-ink"
            onClick={() => apply(retype(line.id, mended(line.formula, { ...at, replacement })))}
          >
            Use {replacement}
          </button>
        ))}
    </p>
  )
}

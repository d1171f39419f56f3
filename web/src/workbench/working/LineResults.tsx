import {
  goTo,
  isCertain,
  lineEquation,
  lineOffer,
  type LineResult,
  offersFor,
  pointSlopeEquation,
  type Readout,
  type ResultChart,
  standardEquation,
  type Statement,
  type LineTexts,
  tableTitle,
  type Verdict,
} from '@yperkine/core'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { Check, CircleHelp, Copy } from 'lucide-react'
import { lazy, memo, Suspense, useRef, useState } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { latexToMathml } from '../../parts/mathml'
import { bracketsTogether, keepTogether } from '../../parts/keepTogether'
import { Maths } from '../../parts/Maths'
import { ResultTableView } from './ResultTableView'
import { setSteadyText, setText } from '../../parts/setText'
import { SignChart } from './SignChart'
import { useReading, useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { useReadoutPainting } from './useReadoutPainting'

const Chart = lazy(() => import('./Chart'))
/** Nothing to say is the same nothing each time. */
const nothing: readonly never[] = []
const nothingYet: Partial<LineResult> = {}

/** What there is to say changes seldom; what it says changes at every frame of a drag. */
const shapeOf = ({ label, straight, exact, latex = '' }: Readout) =>
  [
    label,
    straight ? 'straight' : '',
    exact ? (exact.proven ? 'exactly' : 'likely') : '',
    latex,
  ].join('\t')

/** What stands under a sentence. Its numbers are written by a painting, not by rendering. */
export const Readouts = memo(function Readouts({ id }: { id: string }) {
  const shapes = useWorkbench((s) =>
    (s.evaluation.lines.get(id)?.readouts ?? nothing).map(shapeOf).join('\n'),
  )
  const pending = useWorkbench((s) => s.evaluation.lines.get(id)?.pending === true)
  if (shapes === '') return null
  return (
    <div
      className={`${pending ? 'opacity-50' : ''} mt-1 grid grid-cols-[minmax(4.5rem,auto)_minmax(0,1fr)] items-baseline gap-x-3 gap-y-0.5`}
    >
      {shapes.split('\n').map((shape, index) => (
        <ReadoutView key={shape} id={id} index={index} shape={shape} />
      ))}
    </div>
  )
})

interface ReadoutProps {
  id: string
  index: number
  shape: string
}

/** What is told as an equation or a formula is set as one. */
const formulaLabels = /^(?:line|formula|plane|multiplied out)$/

function ReadoutView({ id, index, shape }: ReadoutProps) {
  const [label = '', straight, exactly, latex] = shape.split('\t')
  const isFormula = formulaLabels.test(label)
  const output = useRef<HTMLOutputElement>(null)
  const figures = useRef<HTMLSpanElement>(null)
  const exactText = useRef<HTMLSpanElement>(null)
  useReadoutPainting(id, index, ({ text, value, exact }) => {
    const element = output.current!
    setSteadyText(figures.current!, bracketsTogether(text))
    if (value === undefined) delete element.dataset.value
    else element.dataset.value = String(value)
    element.dataset.certain = String(isCertain(text))
    if (exactText.current && exact) setText(exactText.current, exact.text)
  })
  return (
    <span className="contents">
      <span aria-hidden className="text-quiet">
        {label}
      </span>
      <span className="min-w-0">
        <output
          ref={output}
          aria-label={label}
          aria-live="off"
          className={
            isFormula
              ? 'font-equation text-[calc(16px*var(--type))]'
              : `font-semibold ${index === 0 ? 'text-[calc(17px*var(--type))]' : ''}`
          }
        >
          <span ref={figures} className={latex ? 'sr-only' : 'steady'}>
            <span />
          </span>
          {latex && <TypesetReadout latex={latex} />}
        </output>
        {straight && <EquationForms id={id} />}
        {exactly && (
          <span
            className="ml-2 text-quiet"
            title={
              exactly === 'exactly' ? 'worked out exactly' : 'all digits agree; that is no proof'
            }
          >
            {exactly} <span ref={exactText} className="font-serif text-[calc(16px*var(--type))]" />
          </span>
        )}
      </span>
    </span>
  )
}

/** So much LaTeX has room beside a label; a longer formula has its fractions set small. */
const longestDisplay = 60

/** A formula as mathematics, in rows that do not touch; one that finds no room is scrolled. */
function TypesetReadout({ latex }: { latex: string }) {
  const isLong = latex.length > longestDisplay
  const rows = !latex.includes('\\frac') ? '' : isLong ? 'leading-[1.9]' : 'leading-[2.6]'
  return (
    <span
      className={`block overflow-x-auto overflow-y-hidden font-normal text-[calc(16px*var(--type))] ${rows}`}
    >
      <Maths latex={isLong ? latex : `\\displaystyle ${latex}`} />
    </span>
  )
}

/** Tidy LaTeX of an equation that is shown as text. */
const latexOf = (text: string) => text.replaceAll('−', '-').replaceAll('·', '\\cdot ')

/** A button for the other forms of a straight line; they are made when it is opened. */
const EquationForms = memo(function EquationForms({ id }: { id: string }) {
  return (
    <Popover className="inline">
      <PopoverButton
        aria-label="Forms of this line"
        title="Other forms, and copying"
        className="ml-1.5 inline-grid size-6 place-items-center rounded-md align-middle text-quiet hover:text-ink"
      >
        <Copy size={14} aria-hidden />
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className="popover z-30 grid gap-2 p-3">
        <FormsOf id={id} />
      </PopoverPanel>
    </Popover>
  )
})

function FormsOf({ id }: { id: string }) {
  const straight = useWorkbench(
    (s) => s.evaluation.lines.get(id)?.readouts.find((r) => r.straight)?.straight,
  )
  return straight ? <Forms straight={straight} /> : null
}

/** The other forms of a straight line, each ready to be copied. */
function Forms({ straight }: { straight: LineTexts }) {
  const store = useWorkbenchStore()
  const letter = useStudy((s) => s.variable.letter)
  const forms = [
    ['slope and height', lineEquation(straight, letter)],
    ['point and slope', pointSlopeEquation(straight, letter)],
    ['letters on one side', standardEquation(straight, letter)],
  ] as const
  const copy = (text: string, what: string) => {
    void navigator.clipboard.writeText(text).then(
      () => store.getState().announce(`Copied ${what}`),
      () => store.getState().announce('The browser did not let the text be copied'),
    )
  }
  return (
    <>
      {forms.map(([name, text]) => (
        <div key={name} className="grid gap-0.5">
          <span className="text-[calc(13px*var(--type))] text-quiet">{name}</span>
          <span className="font-equation text-[calc(16px*var(--type))]">{text}</span>
          <span className="flex gap-1">
            <button type="button" className="pill" onClick={() => copy(text, name)}>
              Text
            </button>
            <button
              type="button"
              className="pill"
              onClick={() => copy(latexOf(text), `${name} as LaTeX`)}
            >
              LaTeX
            </button>
            <button
              type="button"
              className="pill"
              onClick={() =>
                void latexToMathml(latexOf(text)).then((xml) => copy(xml, `${name} as MathML`))
              }
            >
              MathML
            </button>
          </span>
        </div>
      ))}
    </>
  )
}

/** Tables, charts, the verdict on a list and what follows in one press. */
export const FurtherResults = memo(function FurtherResults({ line }: { line: Statement }) {
  // Readouts change at every frame of a drag; a line that has no more than those stays as it is.
  const further = useWorkbench(
    useShallow((s) => {
      const { tables, charts, verdict, offers, pending, sigma, conclusions, signs } =
        s.evaluation.lines.get(line.id) ?? nothingYet
      const names = tables?.map(tableTitle).join('\n')
      return { names, charts, verdict, offers, pending, summed: !!sigma, conclusions, signs }
    }),
  )
  const reading = useReading()
  const { names, charts = nothing, offers = nothing, conclusions = nothing } = further
  const { verdict, pending, summed, signs } = further
  if (Object.values(further).every((part) => !part)) return null
  return (
    <div className={pending ? 'opacity-50' : ''}>
      {summed && <Sigma id={line.id} />}
      {signs && <SignChart figure={signs} name={line.id} />}
      <Conclusions all={conclusions} />
      {names
        ?.split('\n')
        .filter(Boolean)
        .map((name) => (
          <ResultTableView key={name} line={line} name={name} />
        ))}
      {verdict && <VerdictView verdict={verdict} />}
      {charts.map((chart) => (
        <ChartBox key={chart.name} chart={chart} />
      ))}
      {!reading && <Followers offers={offers} />}
    </div>
  )
})

/** Sentences with their reasons; pointing at one lights the place it is read from. */
function Conclusions({ all }: { all: NonNullable<LineResult['conclusions']> }) {
  const store = useWorkbenchStore()
  if (all.length === 0) return null
  const light = (x: number | null) => store.getState().setHighlight(x)
  return (
    <ul
      aria-label="Conclusions"
      className="mt-1 grid gap-1 font-serif text-[calc(15px*var(--type))]"
      onPointerLeave={() => light(null)}
    >
      {all.map(({ text, at }) => (
        <li key={text} className="hover:bg-chosen" onPointerEnter={() => light(at ?? null)}>
          {keepTogether(text)}
        </li>
      ))}
    </ul>
  )
}

/** The sum in sigma notation, typeset on demand, to be copied as LaTeX. */
function Sigma({ id }: { id: string }) {
  const [open, setOpen] = useState(false)
  return (
    <div className={`mt-1.5 ${open ? '' : 'mr-1.5 inline-block'}`}>
      <button
        type="button"
        className="pill"
        aria-expanded={open}
        onClick={() => setOpen((now) => !now)}
      >
        As a sum Σ
      </button>
      {open && <TypesetSum id={id} />}
    </div>
  )
}

function TypesetSum({ id }: { id: string }) {
  const store = useWorkbenchStore()
  const latex = useWorkbench((s) => s.evaluation.lines.get(id)?.sigma ?? '')
  const copy = () =>
    void navigator.clipboard.writeText(latex).then(
      () => store.getState().announce('Copied the sum as LaTeX'),
      () => store.getState().announce('The browser did not let the text be copied'),
    )
  return (
    <div className="mt-1 overflow-x-auto py-1">
      <Maths latex={`\\displaystyle ${latex}`} />
      <button type="button" className="pill ml-2" onClick={copy}>
        Copy LaTeX
      </button>
    </div>
  )
}

function VerdictView({ verdict }: { verdict: Verdict }) {
  const store = useWorkbenchStore()
  const open = verdict.unresolved[0]
  const Icon = verdict.complete ? Check : CircleHelp
  return (
    <p
      className={`mt-1 flex items-center gap-1.5 text-[calc(14px*var(--type))] ${verdict.complete ? 'text-kelp' : 'text-brick'}`}
    >
      <Icon size={15} aria-hidden />
      {verdict.text}
      {open && (
        <button
          type="button"
          className="pill text-ink"
          onClick={() => {
            const room = Math.max((open[1] - open[0]) * 0.3, 1e-9 * Math.max(1, Math.abs(open[0])))
            store.getState().apply(goTo([open[0] - room, open[1] + room]))
          }}
        >
          Look there
        </button>
      )}
    </p>
  )
}

function ChartBox({ chart }: { chart: ResultChart }) {
  const [open, setOpen] = useState(false)
  return (
    <div className={`mt-1.5 ${open ? '' : 'mr-1.5 inline-block'}`}>
      <button
        type="button"
        className="pill"
        aria-expanded={open}
        onClick={() => setOpen((now) => !now)}
      >
        {chart.name}
      </button>
      {open && (
        <Suspense fallback={<p className="text-quiet">Drawing …</p>}>
          <Chart chart={chart} />
        </Suspense>
      )}
    </div>
  )
}

function Followers({ offers }: { offers: NonNullable<LineResult['offers']> }) {
  const store = useWorkbenchStore()
  const follow = (follower: (typeof offers)[number]) => {
    const { apply, announce, shown } = store.getState()
    const offer =
      'line' in follower
        ? lineOffer(follower.line as Statement, shown)
        : offersFor(follower.words, shown, null)[0]
    if (!offer) return
    apply(offer.edit)
    announce(`Added: ${offer.sentence}`)
  }
  return offers.map((follower) => (
    <button
      key={follower.text}
      type="button"
      className="pill mt-1.5 mr-1.5"
      onClick={() => follow(follower)}
    >
      {follower.text}
    </button>
  ))
}

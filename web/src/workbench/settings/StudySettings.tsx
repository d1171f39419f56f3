import {
  changeDisplay,
  changeLine,
  changeStudy,
  changeVariable,
  curveLines,
  type Display,
  type Edit,
  looks,
  renameSymbol,
  type Study,
  symbolProblem,
} from '@yperkine/core'
import { useId, useState } from 'react'
import { Panel } from '../../parts/Panel'
import { useStudy, useWorkbenchStore } from '../store'

/** Title, variable, curves and decimals of the open study; each field is an edit of its own. */
export function StudySettings({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Panel title="Study settings" width="w-[34rem]" open={open} onClose={onClose}>
      <Fields />
    </Panel>
  )
}

function Fields() {
  const study = useStudy((s) => s)
  const { apply } = useWorkbenchStore().getState()
  const { variable } = study
  const firstCurve = curveLines(study)[0]?.name ?? 'f'
  return (
    <div className="mt-4 grid gap-4">
      <Field
        label="Title"
        value={study.title}
        check={(text) => (text.trim() === '' ? 'a study needs a title' : null)}
        onCommit={(text) => apply(changeStudy({ title: text.trim().slice(0, 200) }))}
      />
      <Field
        label="About"
        value={study.about}
        onCommit={(text) => apply(changeStudy({ about: text.trim().slice(0, 300) }))}
      />
      <div className="grid grid-cols-[6rem_1fr_1fr] gap-3">
        <Field
          label="Variable"
          value={variable.letter}
          check={(text) => symbolProblem(study, variable.letter, text.trim())}
          onCommit={(text) => apply(renameSymbol(variable.letter, text.trim()))}
        />
        <Field
          label="Variable name"
          value={variable.name}
          onCommit={(text) => apply(changeVariable({ name: text.trim().slice(0, 40) }))}
        />
        <Field
          label="Variable unit"
          value={variable.unit}
          onCommit={(text) => apply(changeVariable({ unit: text.trim().slice(0, 30) }))}
        />
      </div>
      {curveLines(study).map((line) => (
        <div key={line.id} className="grid grid-cols-[6rem_1fr] gap-3">
          <Field
            label={`Curve ${line.name}`}
            value={line.name}
            check={(text) => symbolProblem(study, line.name, text.trim())}
            onCommit={(text) => apply(renameSymbol(line.name, text.trim()))}
          />
          <Field
            label={`Unit of ${line.name}`}
            value={line.unit}
            onCommit={(text) => apply(changeLine(line.id, { unit: text.trim().slice(0, 30) }))}
          />
        </div>
      ))}
      <div className="grid grid-cols-3 gap-3">
        <Decimals study={study} apply={apply} />
        <Choice
          label="Look"
          value={study.display.look}
          options={looks.map((look) => [look, look])}
          onChoose={(look) => apply(changeDisplay({ look: look as Display['look'] }))}
        />
        <Choice
          label="Notation"
          value={study.display.notation}
          options={[
            ['primes', `${firstCurve}′`],
            ['ratios', `d${firstCurve}/d${variable.letter}`],
          ]}
          onChoose={(notation) =>
            apply(changeDisplay({ notation: notation as Display['notation'] }))
          }
        />
        <Choice
          label="Ticks"
          value={study.display.ticks}
          options={[
            ['numbers', 'numbers'],
            ['pi', 'multiples of π'],
          ]}
          onChoose={(ticks) => apply(changeDisplay({ ticks: ticks as Display['ticks'] }))}
        />
        <Check
          label="Grid"
          checked={study.display.grid}
          onChange={(grid) => apply(changeDisplay({ grid }))}
        />
        <Check
          label="Axes"
          checked={study.display.axes}
          onChange={(axes) => apply(changeDisplay({ axes }))}
        />
        <Check
          label="Numbers"
          checked={study.display.numbers}
          onChange={(numbers) => apply(changeDisplay({ numbers }))}
        />
        <Check
          label="Title on the picture"
          checked={study.display.title}
          onChange={(title) => apply(changeDisplay({ title }))}
        />
      </div>
    </div>
  )
}

interface ChoiceProps {
  label: string
  value: string
  options: [value: string, text: string][]
  onChoose: (value: string) => void
}

function Choice({ label, value, options, onChoose }: ChoiceProps) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-[calc(13px*var(--type))] text-quiet">
        {label}
      </label>
      <select
        id={id}
        className="field w-full"
        value={value}
        onChange={(e) => onChoose(e.target.value)}
      >
        {options.map(([option, text]) => (
          <option key={option} value={option}>
            {text}
          </option>
        ))}
      </select>
    </div>
  )
}

function Check(props: { label: string; checked: boolean; onChange: (checked: boolean) => void }) {
  const { label, checked, onChange } = props
  return (
    <label className="flex items-center gap-2 self-end pb-1.5">
      <input type="checkbox" checked={checked} onChange={(e) => onChange(e.target.checked)} />
      {label}
    </label>
  )
}

interface FieldProps {
  label: string
  value: string
  check?: (text: string) => string | null
  onCommit: (text: string) => void
}

function Field({ label, value, check, onCommit }: FieldProps) {
  const id = useId()
  const [draft, setDraft] = useState<string | null>(null)
  const problem = draft === null ? null : (check?.(draft) ?? null)
  const commit = () => {
    if (draft !== null && problem === null && draft !== value) onCommit(draft)
    if (problem === null) setDraft(null)
  }
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block text-[calc(13px*var(--type))] text-quiet">
        {label}
      </label>
      <input
        id={id}
        className="field w-full"
        value={draft ?? value}
        aria-invalid={problem !== null}
        spellCheck={false}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit()
        }}
      />
      {problem && (
        <p role="alert" className="mt-1 text-[calc(13px*var(--type))] text-brick">
          {problem}
        </p>
      )}
    </div>
  )
}

function Decimals({ study, apply }: { study: Study; apply: (edit: Edit) => void }) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-[calc(13px*var(--type))] text-quiet">
        Decimals
      </label>
      <input
        id={id}
        type="number"
        min={0}
        max={12}
        className="field w-24"
        value={study.decimals}
        onChange={(e) => {
          const decimals = Number(e.target.value)
          if (
            e.target.value !== '' &&
            Number.isInteger(decimals) &&
            decimals >= 0 &&
            decimals <= 12
          ) {
            apply(changeStudy({ decimals }))
          }
        }}
      />
    </div>
  )
}

import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import {
  changeLine,
  changeStudy,
  changeVariable,
  curveLines,
  type Edit,
  renameSymbol,
  type Study,
  symbolProblem,
} from '@yperkine/core'
import { useId, useState } from 'react'
import { useStudy, useWorkbenchStore } from './store'

/** Title, variable, curves and decimals of the open study; each field is an edit of its own. */
export function StudySettings({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} className="relative z-40">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 grid place-items-center p-6">
        <DialogPanel className="popover max-h-full w-[34rem] max-w-full overflow-y-auto px-6 py-5">
          <DialogTitle className="font-serif text-[20px] font-semibold">Study settings</DialogTitle>
          <Fields />
          <div className="mt-5 flex justify-end">
            <button type="button" className="button button-primary" onClick={onClose}>
              Done
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  )
}

function Fields() {
  const study = useStudy((s) => s)
  const { apply } = useWorkbenchStore().getState()
  const { variable } = study
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
      <Decimals study={study} apply={apply} />
    </div>
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
      <label htmlFor={id} className="mb-1 block text-[13px] text-quiet">
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
        <p role="alert" className="mt-1 text-[13px] text-brick">
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
      <label htmlFor={id} className="mb-1 block text-[13px] text-quiet">
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

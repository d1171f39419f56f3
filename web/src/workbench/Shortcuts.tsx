import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import { changeDisplay } from '@yperkine/core'
import { useStudy, useWorkbenchStore } from './store'

const shortcuts: [string, string][] = [
  ['/', 'say what to add'],
  ['Space', 'play or pause, when no control has the focus'],
  [',  .', 'step back, step forward'],
  ['0', 'fit everything on the span'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['?', 'this list'],
]
const onThings: [string, string][] = [
  ['← →', 'a step on a flag, a track or a bound'],
  ['Shift ← →', 'a tenth of a step'],
  ['Page Up, Page Down', 'ten steps'],
  ['Home, End', 'to the bounds'],
  ['Enter', 'type the value exactly'],
]

export function Shortcuts({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { apply } = useWorkbenchStore().getState()
  const keys = useStudy((s) => s.display.keys)
  return (
    <Dialog open={open} onClose={onClose} className="fixed inset-0 z-40">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 grid place-items-center p-6">
        <DialogPanel className="popover max-h-full w-[30rem] max-w-full overflow-y-auto px-6 py-5">
          <DialogTitle className="font-serif text-[calc(20px*var(--type))] font-semibold">
            Keys
          </DialogTitle>
          <KeyList rows={shortcuts} />
          <h3 className="mt-4 text-quiet">On what has the focus</h3>
          <KeyList rows={onThings} />
          <label className="mt-4 flex items-center gap-2">
            <input
              type="checkbox"
              checked={keys}
              onChange={(e) => apply(changeDisplay({ keys: e.target.checked }))}
            />
            Single keys work on this study
          </label>
          <div className="mt-4 flex justify-end">
            <button type="button" className="button button-primary" onClick={onClose}>
              Done
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  )
}

function KeyList({ rows }: { rows: [string, string][] }) {
  return (
    <dl className="mt-2 grid grid-cols-[11rem_1fr] gap-y-1.5">
      {rows.map(([key, what]) => (
        <div key={key} className="contents">
          <dt>
            <kbd className="pill rounded-md font-sans">{key}</kbd>
          </dt>
          <dd>{what}</dd>
        </div>
      ))}
    </dl>
  )
}

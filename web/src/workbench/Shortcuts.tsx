import { changeDisplay } from '@yperkine/core'
import { Panel } from '../parts/Panel'
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
    <Panel title="Keys" width="w-[30rem]" open={open} onClose={onClose}>
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
    </Panel>
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

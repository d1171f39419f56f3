import { changeDisplay } from '@yperkine/core'
import { useStudy, useWorkbenchStore } from '../store'

const anywhere: [string, string][] = [
  ['/', 'say what to add'],
  ['Space', 'play or pause, when no control has the focus'],
  [',  .', 'step back, step forward'],
  ['0', 'fit everything on the span'],
  ['C', 'clear trails'],
  ['[ ]', 'previous and next step of the lesson'],
  ['P', 'present; the same key ends it'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['?', 'how it works'],
]
const onThings: [string, string][] = [
  ['← →', 'a step on a flag, a track or a bound'],
  ['Shift ← →', 'a tenth of a step'],
  ['Page Up, Page Down', 'ten steps'],
  ['Home, End', 'to the bounds'],
  ['Enter', 'type the value exactly; edit a note'],
  ['← ↑ → ↓', 'move a note, a label or a loose point'],
]

export function Keys() {
  const { apply } = useWorkbenchStore().getState()
  const keys = useStudy((s) => s.display.keys)
  return (
    <>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <div>
          <h4 className="text-[calc(13px*var(--type))] text-quiet">Anywhere outside fields</h4>
          <KeyList rows={anywhere} />
        </div>
        <div>
          <h4 className="text-[calc(13px*var(--type))] text-quiet">On what has the focus</h4>
          <KeyList rows={onThings} />
        </div>
      </div>
      <label className="mt-4 flex items-center gap-2">
        <input
          type="checkbox"
          checked={keys}
          onChange={(e) => apply(changeDisplay({ keys: e.target.checked }))}
        />
        Single keys work on this study
      </label>
    </>
  )
}

function KeyList({ rows }: { rows: [string, string][] }) {
  return (
    <dl className="mt-1 grid grid-cols-[10rem_1fr] gap-y-1.5">
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

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { changeLine, lineColours, lineDashes, type LineLook, type Statement } from '@yperkine/core'
import { Eye, EyeOff, Paintbrush } from 'lucide-react'
import { EditableText } from '../parts/EditableText'
import { BoundField } from './BoundField'
import { useWorkbenchStore } from './store'

const drawn = new Set<Statement['kind']>([
  'curve',
  'readings',
  'accumulate',
  'tangent',
  'value',
  'secant',
  'normal',
  'averageRate',
  'where',
  'table',
  'fit',
  'area',
  'between',
  'average',
  'features',
  'conclude',
  'distance',
])

/** Whether a line is drawn, and how: colour, stroke, width and words. */
export function LineLookButton({ line, number }: { line: Statement; number: number }) {
  const { apply } = useWorkbenchStore().getState()
  if (!drawn.has(line.kind)) return null
  const look: LineLook = line.look ?? {}
  const set = (change: LineLook) => apply(changeLine(line.id, { look: { ...look, ...change } }))
  const shown = 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100'
  const button =
    'grid size-7 place-items-center rounded-md bg-page text-quiet hover:text-ink focus-visible:opacity-100'
  return (
    <span className="absolute top-1 right-8 flex">
      <button
        type="button"
        aria-label={`${look.hidden ? 'Show' : 'Hide'} line ${number} in the picture`}
        aria-pressed={look.hidden === true}
        className={`${button} ${look.hidden ? '' : shown}`}
        onClick={() => set({ hidden: !look.hidden })}
      >
        {look.hidden ? <EyeOff size={15} aria-hidden /> : <Eye size={15} aria-hidden />}
      </button>
      <Popover>
        <PopoverButton aria-label={`Look of line ${number}`} className={`${button} ${shown}`}>
          <Paintbrush size={15} aria-hidden />
        </PopoverButton>
        <PopoverPanel anchor="bottom end" className="popover z-30 grid gap-2 p-3">
          <label className="flex items-center justify-between gap-3">
            Colour
            <select
              className="field"
              value={look.colour ?? ''}
              onChange={(e) => set({ colour: lineColours.find((c) => c === e.target.value) })}
            >
              <option value="">usual</option>
              {lineColours.map((colour) => (
                <option key={colour}>{colour}</option>
              ))}
            </select>
          </label>
          <label className="flex items-center justify-between gap-3">
            Stroke
            <select
              className="field"
              value={look.dash ?? 'usual'}
              onChange={(e) => set({ dash: lineDashes.find((d) => d === e.target.value) })}
            >
              {lineDashes.map((dash) => (
                <option key={dash}>{dash}</option>
              ))}
            </select>
          </label>
          <div className="flex items-center justify-between gap-3">
            Width
            <BoundField
              label={`Width of line ${number}`}
              className="w-20"
              value={look.width ?? 3}
              step={0.5}
              decimals={1}
              onEnter={(v) => set({ width: Math.min(8, Math.max(0.5, v)) })}
            />
          </div>
          <div className="flex items-center justify-between gap-3">
            Words
            <EditableText
              label={`Words beside line ${number}`}
              className="w-40"
              value={look.label ?? ''}
              check={() => null}
              onCommit={(text) => set({ label: text.slice(0, 80) })}
              onClose={() => undefined}
            />
          </div>
        </PopoverPanel>
      </Popover>
    </span>
  )
}

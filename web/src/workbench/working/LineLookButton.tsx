import { Popover, PopoverButton, PopoverPanel, Radio, RadioGroup } from '@headlessui/react'
import {
  changeLine,
  kindOf,
  labelNames,
  lineColours,
  lineDashes,
  type LineLook,
  markerShapes,
  resetLabels,
  showLabel,
  type Statement,
} from '@yperkine/core'
import { Eye, EyeOff, Paintbrush } from 'lucide-react'
import { memo, useState } from 'react'
import { EditableText } from '../../parts/EditableText'
import { grounds } from '../../parts/inks'
import { BoundField } from '../../parts/BoundField'
import { useWorkbench, useWorkbenchStore } from '../store'

/** A short tangent is about so long until someone sets its length, in pixels. */
const usualLength = 240
/** Points along a curve are usually so wide, in pixels. */
const alongCurves = 10

/** Whether a line is drawn, and how: colour, stroke, width and words. */
export const LineLookButton = memo(function LineLookButton({
  line,
  number,
}: {
  line: Statement
  number: number
}) {
  const { apply } = useWorkbenchStore().getState()
  const { drawn } = kindOf(line)
  if (!drawn) return null
  const look: LineLook = line.look ?? {}
  const set = (change: LineLook) => apply(changeLine(line.id, { look: { ...look, ...change } }))
  return (
    <>
      <button
        type="button"
        aria-label={`${look.hidden ? 'Show' : 'Hide'} line ${number} in the picture`}
        aria-pressed={look.hidden === true}
        title={look.hidden ? 'Show it in the picture' : 'Hide it in the picture'}
        className={`line-tool ${look.hidden ? 'is-kept' : ''}`}
        onClick={() => set({ hidden: !look.hidden })}
      >
        {look.hidden ? <EyeOff size={15} aria-hidden /> : <Eye size={15} aria-hidden />}
      </button>
      <Popover>
        <PopoverButton
          aria-label={`Look of line ${number}`}
          title="Colour, stroke, width and words"
          className="line-tool"
        >
          <Paintbrush size={15} aria-hidden />
        </PopoverButton>
        <PopoverPanel
          anchor="bottom end"
          className="popover z-30 grid max-w-[calc(100vw-16px)] gap-2 p-3"
        >
          <Swatches
            label={`Colour of line ${number}`}
            chosen={look.colour}
            onChoose={(colour) => set({ colour })}
          />
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
          {drawn.typeSize && (
            <div className="flex items-center justify-between gap-3">
              Size of the words
              <BoundField
                label={`Size of the words of line ${number}`}
                className="w-20"
                value={look.type ?? drawn.typeSize(line)}
                step={1}
                decimals={0}
                onEnter={(v) => set({ type: Math.min(96, Math.max(8, v)) })}
              />
            </div>
          )}
          {'extent' in line && line.extent === 'short' && (
            <div className="flex items-center justify-between gap-3">
              Length
              <BoundField
                label={`Length of line ${number}`}
                className="w-20"
                value={look.length ?? usualLength}
                step={10}
                decimals={0}
                onEnter={(v) => set({ length: Math.min(4000, Math.max(10, v)) })}
              />
            </div>
          )}
          {(drawn.pointWidth ?? drawn.stands) !== undefined && (
            <MarkerLook
              number={number}
              look={look}
              usualWidth={drawn.pointWidth ?? alongCurves}
              ownShape={drawn.ownShape === true}
              onSet={set}
            />
          )}
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
          <CopiedLook look={look} onUse={set} />
          <PointLabels line={line} />
        </PopoverPanel>
      </Popover>
    </>
  )
})

/** The look that was copied last, by whatever line. */
let copied: LineLook | null = null

/** Takes the look of one line to another: colour, stroke, widths and points, and not its words. */
function CopiedLook({ look, onUse }: { look: LineLook; onUse: (change: LineLook) => void }) {
  const { announce } = useWorkbenchStore().getState()
  const [, setSeen] = useState(copied)
  const copy = () => {
    const { colour, dash, width, length, marker, markerWidth, type } = look
    copied = { colour, dash, width, length, marker, markerWidth, type }
    setSeen(copied)
    announce('Look copied')
  }
  return (
    <div className="flex flex-wrap gap-2">
      <button type="button" className="pill" onClick={copy}>
        Copy this look
      </button>
      {copied && (
        <button
          type="button"
          className="pill"
          onClick={() => {
            if (copied) onUse(copied)
            announce('Look taken over')
          }}
        >
          Use the copied look
        </button>
      )}
    </div>
  )
}

interface MarkerLookProps {
  number: number
  look: LineLook
  usualWidth: number
  ownShape: boolean
  onSet: (change: LineLook) => void
}

/** Shape and width of the points that a line draws. */
const MarkerLook = ({ number, look, usualWidth, ownShape, onSet }: MarkerLookProps) => (
  <>
    {!ownShape && (
      <label className="flex items-center justify-between gap-3">
        Marker
        <select
          className="field"
          value={look.marker ?? ''}
          onChange={(e) => onSet({ marker: markerShapes.find((m) => m === e.target.value) })}
        >
          <option value="">usual</option>
          {markerShapes.map((shape) => (
            <option key={shape}>{shape}</option>
          ))}
        </select>
      </label>
    )}
    <div className="flex items-center justify-between gap-3">
      Marker width
      <BoundField
        label={`Marker width of line ${number}`}
        className="w-20"
        value={look.markerWidth ?? usualWidth}
        step={1}
        decimals={1}
        onEnter={(v) => onSet({ markerWidth: Math.min(160, Math.max(2, v)) })}
      />
    </div>
  </>
)

interface SwatchesProps {
  label: string
  chosen: LineLook['colour']
  onChoose: (colour: LineLook['colour']) => void
}

/** Colours to choose from, as they are drawn, each with its name; the first is the usual one. */
const Swatches = ({ label, chosen, onChoose }: SwatchesProps) => (
  <RadioGroup
    aria-label={label}
    value={chosen ?? 'usual'}
    onChange={(colour) => onChoose(lineColours.find((c) => c === colour))}
    className="flex flex-wrap items-center gap-1"
  >
    <span aria-hidden className="mr-auto pr-3 pointer-coarse:w-full">
      Colour
    </span>
    {['usual' as const, ...lineColours].map((colour) => (
      <Radio
        key={colour}
        value={colour}
        aria-label={colour}
        title={colour}
        className="grid size-7 cursor-pointer place-items-center rounded-full border-2 border-transparent data-[checked]:border-ink pointer-coarse:size-11"
      >
        {colour === 'usual' ? (
          <span className="text-[calc(12px*var(--type))] text-quiet">auto</span>
        ) : (
          <span className={`size-5 rounded-full ${grounds[colour]}`} />
        )}
      </Radio>
    ))}
  </RadioGroup>
)

/** Which labels of its points a line shows. */
function PointLabels({ line }: { line: Statement }) {
  const { apply } = useWorkbenchStore().getState()
  const marks = useWorkbench((s) => s.evaluation.lines.get(line.id)?.marks)
  const curves = useWorkbench((s) => s.evaluation.curves)
  const nameOf = labelNames(line.look, marks ?? [], (lane) => curves.get(lane.curve))
  const labels = (marks ?? []).flatMap((mark) =>
    (mark.kind === 'stem' || mark.kind === 'dot') && mark.label
      ? [{ key: nameOf(mark.id), text: mark.label }]
      : [],
  )
  if (labels.length === 0) return null
  const { moved = {}, without = [] } = line.look ?? {}
  return (
    <fieldset className="grid max-h-48 gap-1 overflow-y-auto">
      <legend className="mb-1">Labels of its points</legend>
      {labels.map(({ key, text }) => (
        <label key={key} className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={!without.includes(key)}
            onChange={(e) => apply(showLabel(line.id, key, e.target.checked))}
          />
          {text}
        </label>
      ))}
      {(without.length > 0 || Object.keys(moved).length > 0) && (
        <button
          type="button"
          className="pill justify-self-start"
          onClick={() => apply(resetLabels(line.id))}
        >
          Put all labels back
        </button>
      )}
    </fieldset>
  )
}

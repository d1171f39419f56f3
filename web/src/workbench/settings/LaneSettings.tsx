import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import {
  changeLane,
  curveMakers,
  type LaneScene,
  laneTitle,
  ownLane,
  setLaneFrame,
  toggleOverlay,
} from '@yperkine/core'
import { MoveVertical } from 'lucide-react'
import { memo } from 'react'
import { BoundField } from '../../parts/BoundField'
import { Labelled } from '../../parts/Labelled'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'

interface Props {
  lane: Pick<LaneScene, 'id' | 'title'>
}

/** The heights of a lane: typed bounds, following the curve, equal scale. */
export const LaneSettings = memo(function LaneSettings({ lane }: Props) {
  const { apply } = useWorkbenchStore().getState()
  const kept = useStudy((s) => s.lanes.find((l) => l.id === lane.id))
  const [low, high] = useWorkbench((s) => s.scene.lanes.find((l) => l.id === lane.id)!.y)
  const step = 10 ** Math.floor(Math.log10((high - low) / 10))
  const decimals = Math.max(0, Math.min(12, 2 - Math.floor(Math.log10(high - low))))
  const field = { step, decimals, className: 'w-28' }
  return (
    <Popover>
      <PopoverButton
        aria-label={`Heights of ${lane.title}`}
        title={`Heights of ${lane.title}`}
        className="grid size-8 place-items-center rounded-md text-quiet hover:text-ink"
      >
        <MoveVertical size={16} aria-hidden />
      </PopoverButton>
      <PopoverPanel anchor="right start" className="popover z-30 grid gap-3 p-4">
        <div className="flex items-end gap-3">
          <Labelled text="from">
            <BoundField
              {...field}
              label={`${lane.title} from`}
              value={low}
              onEnter={(v) => apply(setLaneFrame(lane.id, [v, high]))}
            />
          </Labelled>
          <Labelled text="to">
            <BoundField
              {...field}
              label={`${lane.title} to`}
              value={high}
              onEnter={(v) => apply(setLaneFrame(lane.id, [low, v]))}
            />
          </Labelled>
        </div>
        <button
          type="button"
          className="button justify-center"
          disabled={kept?.frame === null && !kept.equalScale}
          onClick={() => apply(changeLane(lane.id, { frame: null, equalScale: false }))}
        >
          Follow the curve
        </button>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={kept?.equalScale ?? false}
            onChange={(e) => apply(changeLane(lane.id, { equalScale: e.target.checked }))}
          />
          Equal scale
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={kept?.covered ?? false}
            onChange={(e) => apply(changeLane(lane.id, { covered: e.target.checked }))}
          />
          Covered, to be guessed first
        </label>
        {kept?.covered && (
          <label className="flex items-center justify-between gap-2">
            Asks for
            <select
              className="field"
              value={kept.asks ?? ''}
              onChange={(e) =>
                apply(
                  changeLane(lane.id, {
                    asks: asked.find((one) => one === e.target.value),
                  }),
                )
              }
            >
              <option value="">a graph or signs</option>
              <option value="graph">a drawn graph</option>
              <option value="signs">signs</option>
            </select>
          </label>
        )}
        <AlsoHere id={lane.id} />
      </PopoverPanel>
    </Popover>
  )
})

const asked = ['graph', 'signs'] as const

/** What else is drawn in the lane; the same as dragging a rung onto it. */
function AlsoHere({ id }: { id: string }) {
  const { apply } = useWorkbenchStore().getState()
  const lane = useStudy((s) => s.lanes.find((l) => l.id === id))
  const names = useStudy((s) =>
    curveMakers(s)
      .map((l) => l.name)
      .join(' '),
  )
  if (!lane) return null
  const all = names.split(' ').flatMap((curve) => [0, 1, 2].map((order) => ({ curve, order })))
  const others = all.filter((o) => o.curve !== lane.curve || o.order !== lane.order)
  return (
    <fieldset className="grid max-h-40 gap-1 overflow-y-auto border-t border-rule pt-2">
      <legend className="text-[calc(13px*var(--type))] text-quiet">Also drawn here</legend>
      {others.map(({ curve, order }) => (
        <label key={`${curve}${order}`} className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={lane.overlays.some((o) => o.curve === curve && o.order === order)}
            onChange={() => apply(toggleOverlay(id, curve, order))}
          />
          {laneTitle({ curve, order })}
        </label>
      ))}
      {lane.overlays.map(({ curve, order }) => (
        <button
          key={`own${curve}${order}`}
          type="button"
          className="button justify-center"
          onClick={() => apply(ownLane(curve, order))}
        >
          Give {laneTitle({ curve, order })} a lane of its own
        </button>
      ))}
    </fieldset>
  )
}

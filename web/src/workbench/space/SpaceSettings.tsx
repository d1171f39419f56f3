import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { changeSpace, type SpaceView, usualSpace } from '@yperkine/core'
import { Rotate3d } from 'lucide-react'
import { BoundField } from '../../parts/BoundField'
import { Check } from '../../parts/Check'
import { Labelled } from '../../parts/Labelled'
import { useStudy, useWorkbenchStore } from '../store'

interface Props {
  /** Of the two axes of the ground, and of the height. */
  names: readonly [string, string, string]
  heights: readonly [number, number]
}

/** Views of a sheet of paper: from above, and from the sides. */
const directions = ([x, y]: Props['names']) =>
  [
    ['From above', -90, 90],
    [`Along ${y}`, -90, 0],
    [`Along ${x}`, 0, 0],
    ['Usual', usualSpace.azimuth, usualSpace.elevation],
  ] as const

/** How the surfaces are looked at: typed directions, projection, scales, heights, level lines. */
export function SpaceSettings({ names, heights: [low, high] }: Props) {
  const name = names[2]
  const { apply } = useWorkbenchStore().getState()
  const view = useStudy((s) => s.space)
  const change = (to: Partial<SpaceView>) => apply(changeSpace(to))
  const step = 10 ** Math.floor(Math.log10((high - low) / 10))
  const decimals = Math.max(0, Math.min(12, 2 - Math.floor(Math.log10(high - low))))
  return (
    <Popover className="absolute top-2 left-2 z-10">
      <PopoverButton
        aria-label={`View of ${name}`}
        title={`View of ${name}`}
        className="button gap-1.5"
      >
        <Rotate3d size={16} aria-hidden />
        View
      </PopoverButton>
      <PopoverPanel anchor="bottom start" className="popover z-30 p-4">
        <div className="grid w-56 gap-3">
          <div className="flex items-end gap-3">
            <Labelled text="azimuth °">
              <BoundField
                label="azimuth"
                value={view.azimuth}
                step={5}
                decimals={1}
                className="w-24"
                onEnter={(azimuth) => change({ azimuth })}
              />
            </Labelled>
            <Labelled text="elevation °">
              <BoundField
                label="elevation"
                value={view.elevation}
                step={5}
                decimals={1}
                className="w-24"
                onEnter={(elevation) => change({ elevation })}
              />
            </Labelled>
          </div>
          <div className="flex flex-wrap gap-1.5">
            {directions(names).map(([words, azimuth, elevation]) => (
              <button
                key={words}
                type="button"
                className="pill"
                onClick={() => change({ azimuth, elevation })}
              >
                {words}
              </button>
            ))}
          </div>
          <Check
            label="In perspective"
            on={view.perspective}
            onSet={(perspective) => change({ perspective })}
          />
          <Check
            label="Equal scales"
            on={view.equalScale}
            onSet={(equalScale) => change({ equalScale })}
          />
          <Check label="Level lines" on={view.levels} onSet={(levels) => change({ levels })} />
          <label className="flex items-center gap-2">
            See through
            <input
              type="range"
              min={0}
              max={0.9}
              step={0.1}
              value={view.clear}
              className="min-w-0 flex-1"
              onChange={(e) => change({ clear: Number(e.target.value) })}
            />
          </label>
          <div className="flex items-end gap-3 border-t border-rule pt-2">
            <Labelled text="heights from">
              <BoundField
                {...{ label: 'heights from', value: low, step, decimals, className: 'w-24' }}
                onEnter={(v) => v < high && change({ heights: [v, high] })}
              />
            </Labelled>
            <Labelled text="to">
              <BoundField
                {...{ label: 'heights to', value: high, step, decimals, className: 'w-24' }}
                onEnter={(v) => v > low && change({ heights: [low, v] })}
              />
            </Labelled>
          </div>
          <button
            type="button"
            className="button justify-center"
            disabled={view.heights === null}
            onClick={() => change({ heights: null })}
          >
            Follow the surface
          </button>
        </div>
      </PopoverPanel>
    </Popover>
  )
}

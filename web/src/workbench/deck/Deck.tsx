import { hasSpace } from '@yperkine/core'
import { useHeadless, useReading, useStudy, useWorkbench } from '../store'
import { LetMove } from '../settings/SliderSettings'
import { ClearTrails, DeckSwitches } from './DeckSwitches'
import { Track } from './Track'
import { Transport } from './Transport'

/** A track for each slider of the study. */
export function Deck() {
  const reading = useReading()
  const headless = useHeadless()
  const names = useStudy((s) => s.sliders.map((slider) => slider.name).join(' '))
  const inSpace = useWorkbench((s) => hasSpace(s.evaluation))
  const hasLanes = useStudy((s) => s.lanes.length > 0)
  const hasRuler = hasLanes || !inSpace
  const sliders = names === '' ? [] : names.split(' ')
  return (
    <section
      aria-label="Deck"
      className={`relative isolate flex shrink-0 flex-wrap items-center gap-x-6 gap-y-2 overflow-y-auto border-t border-rule bg-paper px-4 ${headless ? 'max-h-[40vh] py-1' : 'min-h-[84px] py-2 lg:max-h-[168px]'}`}
    >
      {/* The extent of what is drawn here stays the same when a number or a thumb changes. */}
      <div aria-hidden className="absolute inset-0 -z-10 bg-paper" />
      {sliders.length === 0 && (
        <>
          <p className="text-quiet">
            Nothing moves yet.
            {!reading &&
              (hasRuler
                ? ' Click the ruler, or say “tangent” on the right: its place will have a track here.'
                : ' Say “tangent plane” on the right: its point will have two tracks here.')}
          </p>
          {!reading && <LetMove />}
        </>
      )}
      {sliders.length > 0 && <Transport />}
      <DeckSwitches />
      <ClearTrails />
      {sliders.map((name) => (
        <Track key={name} name={name} plain={headless} />
      ))}
    </section>
  )
}

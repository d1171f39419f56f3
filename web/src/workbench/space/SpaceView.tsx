import {
  cameraOf,
  isDark,
  palettes,
  spaceBack,
  spaceBody,
  spaceFront,
  spaceOf,
} from '@yperkine/core'
import { lazy, Suspense, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { useHeadless, useReading, useWorkbench } from '../store'
import { wallType } from '../drawing/layout'
import { DrawnParts } from './DrawnParts'
import { SpaceSettings } from './SpaceSettings'
import { SpotHandle } from './SpotHandle'
import { useTurning } from './useTurning'
import { hasWebGl } from './webgl'

const SpaceGl = lazy(() => import('./SpaceGl'))

/** An angle as it is told: between −180 and 180 degrees. */
const around = (degrees: number) => ((((degrees + 180) % 360) + 360) % 360) - 180

/** The surfaces of a study in their space, to be turned; `beside` lanes it takes half of the room. */
export default function SpaceView({ beside }: { beside: boolean }) {
  const evaluation = useWorkbench((s) => s.evaluation)
  const isHurried = useWorkbench(
    (s) => s.history.gesture !== null || s.courses !== null || s.glide !== null,
  )
  const presenting = useWorkbench((s) => s.presenting !== null)
  const headless = useHeadless()
  const reading = useReading()
  const scene = useMemo(() => spaceOf(evaluation), [evaluation])
  const box = useRef<HTMLElement>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  const [gl, setGl] = useState(hasWebGl)
  const { view, isTurning, handlers } = useTurning()
  const { look } = evaluation.study.display

  useLayoutEffect(() => {
    const element = box.current!
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight })
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [])

  const style = useMemo(() => {
    const scale = presenting ? wallType() : look === 'chalk' ? 1.2 : 1
    return { palette: palettes[look], isDark: isDark(look), scale }
  }, [look, presenting])
  const camera = useMemo(
    () => (scene && size.width > 0 && size.height > 0 ? cameraOf(view, scene.box, size) : null),
    [scene, view, size],
  )
  const back = useMemo(
    () => (scene && camera ? spaceBack(scene, camera, style) : []),
    [scene, camera, style],
  )
  const front = useMemo(
    () => (scene && camera ? spaceFront(scene, camera, style) : []),
    [scene, camera, style],
  )
  const isMoving = isTurning || isHurried
  const body = useMemo(
    () =>
      scene && camera && !gl ? spaceBody(scene, camera, style, isMoving ? 'moving' : 'still') : [],
    [scene, camera, style, gl, isMoving],
  )
  const name = scene?.names[2] ?? 'z'
  const whole = { width: size.width, height: size.height, 'aria-hidden': true } as const
  return (
    <figure
      ref={box}
      aria-label={`Surface ${name}`}
      aria-describedby="space-summary"
      data-drawn-by={gl ? 'webgl' : 'svg'}
      className={`relative min-h-0 min-w-0 flex-1 overflow-hidden bg-page select-none max-sm:min-h-[300px] ${beside ? 'border-r border-rule max-xl:border-r-0 max-xl:border-b' : ''}`}
    >
      <figcaption id="space-summary" className="sr-only">
        {scene?.summary}
      </figcaption>
      {scene && camera && (
        <>
          <svg {...whole} className="absolute inset-0">
            <DrawnParts items={back} />
          </svg>
          {gl ? (
            <Suspense fallback={null}>
              <SpaceGl
                scene={scene}
                camera={camera}
                style={style}
                hurried={isHurried}
                onLost={() => setGl(false)}
              />
            </Suspense>
          ) : (
            <svg {...whole} className="absolute inset-0">
              <DrawnParts items={body} />
            </svg>
          )}
          <div
            role="slider"
            aria-label={`Turn ${name}`}
            aria-valuemin={-180}
            aria-valuemax={180}
            aria-valuenow={Math.round(around(view.azimuth))}
            aria-valuetext={`azimuth ${Math.round(around(view.azimuth))}°, elevation ${Math.round(view.elevation)}°`}
            tabIndex={0}
            className="absolute inset-0 cursor-grab touch-none -outline-offset-2 active:cursor-grabbing"
            {...handlers}
          />
          <svg {...whole} className="pointer-events-none absolute inset-0">
            <DrawnParts items={front} />
            {scene.spots
              .filter(({ held }) => held !== null)
              .map((spot) => (
                <SpotHandle key={spot.key} spot={spot} scene={scene} camera={camera} />
              ))}
          </svg>
          {!headless && !reading && (
            <SpaceSettings names={scene.names} heights={[scene.box.z.lo, scene.box.z.hi]} />
          )}
        </>
      )}
    </figure>
  )
}

import { hasSpace } from '@yperkine/core'
import { lazy, Suspense } from 'react'
import { Lanes } from '../lanes/Lanes'
import { useStudy, useWorkbench } from '../store'

/** The view of surfaces comes with a large package: it is fetched by studies that have some. */
const SpaceView = lazy(() => import('./SpaceView'))

/** The picture of a study: its lanes, and beside them the view of its surfaces where it has some. */
export function Views() {
  const inSpace = useWorkbench((s) => hasSpace(s.evaluation))
  const hasLanes = useStudy((s) => s.lanes.length > 0)
  if (!inSpace) return <Lanes />
  return (
    <div className="flex min-h-0 min-w-0 flex-1 max-xl:flex-col">
      <Suspense
        fallback={
          <p className="min-h-0 flex-1 bg-page p-6 text-quiet max-sm:min-h-[300px]">
            Opening the view …
          </p>
        }
      >
        <SpaceView beside={hasLanes} />
      </Suspense>
      {hasLanes && <Lanes />}
    </div>
  )
}

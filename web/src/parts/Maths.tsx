import { lazy, Suspense } from 'react'

const Typeset = lazy(() => import('./Typeset'))

/** Typeset mathematics. What it says must stand in an accessible name beside it. */
export function Maths({ latex }: { latex: string }) {
  return (
    <Suspense fallback={<span aria-hidden />}>
      <Typeset latex={latex} />
    </Suspense>
  )
}

import { useRouteError } from 'react-router'
import { Mark } from '../parts/Mark'

/** Where the page itself has failed: what happened, and that what was saved is kept. */
export function BrokenPage() {
  const error = useRouteError()
  const reason = error instanceof Error ? error.message : String(error)
  return (
    <main className="mx-auto flex max-w-xl flex-col items-start gap-4 px-6 py-24">
      <Mark />
      <h1 className="font-serif text-2xl font-semibold">This page has failed.</h1>
      <p role="alert">
        The study is kept as it was last saved, and what was not saved yet in this browser. Load the
        page again to go on.
      </p>
      <p className="text-quiet">{reason}</p>
      <div className="flex gap-2">
        <button type="button" className="button button-primary" onClick={() => location.reload()}>
          Load it again
        </button>
        <a href="/" className="button">
          To the studies
        </a>
      </div>
    </main>
  )
}

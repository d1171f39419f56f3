import { usePending } from './usePending'

/** Says that a line is still being worked out, how far it is, and lets it be stopped. */
export function PendingWork({ id, name }: { id: string; name: string }) {
  const { isPending, progress, stopped, stop, goOn } = usePending(id)
  if (!isPending) return null
  if (stopped) {
    return (
      <p role="status" className="mt-1 flex items-center gap-2 text-quiet">
        Stopped before it was settled.
        <button type="button" className="pill text-ink" onClick={goOn}>
          Go on
        </button>
      </p>
    )
  }
  return (
    <div className="mt-1 flex items-center gap-2 text-quiet">
      <span role="status">Working it out …</span>
      {progress !== null && (
        <>
          <progress aria-label={`Working out: ${name}`} value={progress} max={1} className="w-24" />
          <button type="button" className="pill text-ink" onClick={stop}>
            Stop
          </button>
        </>
      )}
    </div>
  )
}

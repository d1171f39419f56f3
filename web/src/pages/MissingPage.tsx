import { Link } from 'react-router'
import { Mark } from '../parts/Mark'

export function MissingPage({
  message = 'Nothing is kept at this address.',
  alone = false,
}: {
  message?: string
  /** Without a way to the studies, as within someone's page. */
  alone?: boolean
}) {
  return (
    <main className="mx-auto flex max-w-xl flex-col items-start gap-4 px-6 py-24">
      <Mark />
      <h1 className="font-serif text-2xl font-semibold">{message}</h1>
      {!alone && (
        <Link to="/" className="button">
          To the studies
        </Link>
      )}
    </main>
  )
}

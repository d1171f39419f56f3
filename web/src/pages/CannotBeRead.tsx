interface Props {
  error: Error
  onAgain: () => void
}

/** A study that could not be had just now, with a way to try again. */
export const CannotBeRead = ({ error, onAgain }: Props) => (
  <main className="mx-auto max-w-xl px-6 py-24">
    <p role="alert">The study cannot be read at the moment: {error.message}.</p>
    <button type="button" className="button mt-4" onClick={onAgain}>
      Try again
    </button>
  </main>
)

import { Panel } from '../parts/Panel'

/** Says why something was not made. */
export const Trouble = ({ words, onClose }: { words: string | null; onClose: () => void }) => (
  <Panel title="That did not work" open={words !== null} onClose={onClose}>
    <p role="alert" className="max-w-md py-2">
      {words}
    </p>
  </Panel>
)

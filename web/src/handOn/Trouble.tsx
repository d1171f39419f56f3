import { Panel } from '../parts/Panel'

export interface Told {
  title: string
  words: string
}

/** Says why something was not made, or what it lacks. */
export const Trouble = ({ told, onClose }: { told: Told | null; onClose: () => void }) => (
  <Panel title={told?.title ?? ''} open={told !== null} onClose={onClose}>
    <p role="alert" className="max-w-md py-2">
      {told?.words}
    </p>
  </Panel>
)

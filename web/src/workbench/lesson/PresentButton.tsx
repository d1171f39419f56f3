import { Presentation } from 'lucide-react'
import { useWorkbenchStore } from '../store'

export function PresentButton() {
  const { present } = useWorkbenchStore().getState()
  return (
    <button type="button" className="button max-sm:px-2" title="Present (P)" onClick={present}>
      <Presentation size={16} aria-hidden />
      <span className="max-lg:sr-only">Present</span>
    </button>
  )
}

import { ChevronLeft, ChevronRight } from 'lucide-react'
import { useWorkbenchStore } from '../store'

const ways = [
  { by: -1, label: 'Previous in lesson', letter: '[', Icon: ChevronLeft },
  { by: 1, label: 'Next in lesson', letter: ']', Icon: ChevronRight },
] as const

/** Back and on in the lesson. */
export function Ways() {
  const { goOn } = useWorkbenchStore().getState()
  return ways.map(({ by, label, letter, Icon }) => (
    <button
      key={label}
      type="button"
      aria-label={label}
      title={`${label} (${letter})`}
      className="button px-1.5 pointer-coarse:min-h-11 pointer-coarse:min-w-11"
      onClick={() => goOn(by)}
    >
      <Icon size={18} aria-hidden />
    </button>
  ))
}

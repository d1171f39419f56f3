import { useSyncExternalStore } from 'react'

const query = '(pointer: coarse)'

const listen = (onChange: () => void) => {
  const media = matchMedia(query)
  media.addEventListener('change', onChange)
  return () => media.removeEventListener('change', onChange)
}

/** Whether a finger is what points here. */
export const useCoarsePointer = () => useSyncExternalStore(listen, () => matchMedia(query).matches)

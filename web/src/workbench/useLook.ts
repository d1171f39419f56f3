import { useEffect } from 'react'
import { useStudy } from './store'

/** Gives the page the look of the open study, as long as it is open. */
export function useLook() {
  const look = useStudy((s) => s.display.look)
  useEffect(() => {
    const { dataset } = document.documentElement
    dataset.look = look
    return () => {
      delete dataset.look
    }
  }, [look])
}

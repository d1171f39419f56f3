import { playerId } from './page'

/** The page is one file: its worker runs the same script, from a copy in memory. */
export function startWorker(): Worker {
  const script = document.getElementById(playerId)?.textContent ?? ''
  const url = URL.createObjectURL(new Blob([script], { type: 'text/javascript' }))
  return new Worker(url)
}

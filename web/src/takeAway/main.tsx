import '../noGeneratedCode'
import '../styles.css'
import { startPlayer } from './Player'

// The worker of the page is this very script; it has no page to draw.
if (typeof document === 'undefined') void import('../work/worker')
else startPlayer()

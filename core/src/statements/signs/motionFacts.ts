import { signInside } from '../../features/sign'
import type { SignChanges } from '../../features/examine'
import type { SpanFacts } from '../shared/spanFacts'
import { near, type Stretch } from '../shared/signStretches'

type Sign = -1 | 0 | 1

/** What something does on a stretch of time, by its velocity v and the acceleration v′. */
export interface Phase {
  on: Stretch
  does: 'speedsUp' | 'slowsDown' | 'keepsSpeed' | 'rests'
  v: Sign
  a: Sign
  /** Places inside at which v′ is 0 or missing all the same. */
  except: readonly number[]
}

/** A moment at which v is 0, or changes its sign without being 0. */
export interface Moment {
  x: number
  enclosure: readonly [number, number]
  /** v is 0 there. */
  rests: boolean
  /** The signs of v beside it; null at an end of the span and where they are not known. */
  before: Sign | null
  after: Sign | null
}

export interface Motion {
  phases: Phase[]
  moments: Moment[]
}

/** A zero that is a break as well, or a zero of both, is found to within its enclosure. */
const closest = (x: number) => 2e-9 * Math.max(1, Math.abs(x))

/**
 * The phases of a motion, maximal, and the moments at which it rests or turns back: by the proven
 * zeros and breaks of v and v′. What could not be settled of either belongs to no phase.
 */
export function motionOf(
  v: SpanFacts,
  a: SpanFacts,
  [from, to]: readonly [number, number],
): Motion {
  const [vs, as] = [v.signChanges!, a.signChanges!]
  const open = [...vs.openSigns, ...as.openSigns]
  const cuts = cutsOf([...placesOf(vs), ...placesOf(as), ...open.flat()], from, to)
  const pieces = cuts.slice(1).flatMap((end, i): Phase[] => {
    const begin = cuts[i]!
    if (open.some(([lo, hi]) => lo <= begin && end <= hi)) return []
    const [sv, sa] = [signInside(v.f, begin, end), signInside(a.f, begin, end)]
    if (sv === null || sa === null) return []
    const does =
      sv === 0 ? 'rests' : sa === 0 ? 'keepsSpeed' : sv * sa > 0 ? 'speedsUp' : 'slowsDown'
    return [{ on: [begin, end], does, v: sv, a: sa, except: [] }]
  })
  const isBroken = (x: number) => vs.breaks.some((b) => breaksOff(b.kind) && near(b.x, x))
  return { phases: merged(pieces, isBroken), moments: momentsOf(vs, pieces, [from, to]) }
}

const placesOf = ({ zeros, breaks }: SignChanges) => [...zeros, ...breaks].map((p) => p.x)

function cutsOf(places: readonly number[], from: number, to: number): number[] {
  const inside = places
    .filter((x) => x > from + closest(from) && x < to - closest(to))
    .sort((p, q) => p - q)
  return [from, ...inside.filter((x, i) => !(x - inside[i - 1]! <= closest(x))), to]
}

export const breaksOff = (kind: SignChanges['breaks'][number]['kind']) =>
  kind !== 'kink' && kind !== 'cusp' && kind !== 'vertical'

/** Neighbours of one kind are one phase, where v goes on between them. */
function merged(pieces: readonly Phase[], isBroken: (x: number) => boolean): Phase[] {
  const phases: Phase[] = []
  for (const piece of pieces) {
    const last = phases.at(-1)
    const [begin, end] = piece.on
    const joins =
      last?.on[1] === begin && last.does === piece.does && last.v === piece.v && !isBroken(begin)
    if (joins) {
      phases[phases.length - 1] = {
        ...last,
        on: [last.on[0], end],
        except: [...last.except, begin],
      }
    } else phases.push(piece)
  }
  return phases
}

/** Zeros of v, and breaks at which it changes its sign; stretches of rest are phases. */
function momentsOf(
  { zeros, breaks }: SignChanges,
  pieces: readonly Phase[],
  [from, to]: Stretch,
): Moment[] {
  const sideOf = (x: number, end: 0 | 1): Sign | null => {
    if (near(x, end === 1 ? from : to)) return null
    return pieces.find(({ on }) => near(on[end], x))?.v ?? null
  }
  const beside = (x: number) => ({ before: sideOf(x, 1), after: sideOf(x, 0) })
  const rests = zeros.map(({ x, enclosure }): Moment => ({
    x,
    enclosure,
    rests: true,
    ...beside(x),
  }))
  const leaps = breaks
    .filter(({ kind, x }) => breaksOff(kind) && !zeros.some((z) => near(z.x, x)))
    .map(({ x, enclosure }): Moment => ({ x, enclosure, rests: false, ...beside(x) }))
    .filter(({ before, after }) => before !== null && after !== null && before * after < 0)
  return [...rests, ...leaps]
    .filter(({ before, after }) => before !== 0 && after !== 0)
    .sort((p, q) => p.x - q.x)
}

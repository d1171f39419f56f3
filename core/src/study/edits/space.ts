import { type SpaceView, spaceSchema } from '../../vocabulary/members'
import type { Edit } from './edit'

/** An angle between −180 and 180 degrees, to a tenth. */
const turned = (degrees: number) => {
  const around = ((((degrees + 180) % 360) + 360) % 360) - 180
  return Math.round(around * 10) / 10 + 0
}
const raised = (degrees: number) => Math.round(Math.min(90, Math.max(-90, degrees)) * 10) / 10 + 0

/** Looks at the surfaces otherwise; what no view can be changes nothing. */
export const changeSpace =
  (change: Partial<SpaceView>): Edit =>
  (study) => {
    const { azimuth, elevation } = { ...study.space, ...change }
    const next = {
      ...study.space,
      ...change,
      ...(change.azimuth === undefined ? {} : { azimuth: turned(azimuth) }),
      ...(change.elevation === undefined ? {} : { elevation: raised(elevation) }),
    }
    const isSame = (Object.keys(next) as (keyof SpaceView)[]).every(
      (key) => next[key] === study.space[key],
    )
    return isSame || !spaceSchema.safeParse(next).success ? study : { ...study, space: next }
  }

import { areas } from './areas'
import { lessons } from './lesson'
import { rates } from './rates'
import { searches } from './searches'
import { shapes } from './shapes'
import type { DemoStudy } from './sketch'
import { staged } from './staged'
import { surfaces } from './surfaces'

/** All from the Ostrel lagoon field station, which does not exist; every number is made up. */
export const demoStudies: DemoStudy[] = [
  ...lessons,
  ...staged,
  ...rates,
  ...areas,
  ...shapes,
  ...searches,
  ...surfaces,
]

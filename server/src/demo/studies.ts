import { areas } from './areas'
import { rates } from './rates'
import { shapes } from './shapes'
import type { DemoStudy } from './sketch'

/** All from the Ostrel lagoon field station, which does not exist; every number is made up. */
export const demoStudies: DemoStudy[] = [...rates, ...areas, ...shapes]

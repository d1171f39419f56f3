import { surfaceOf } from '../statements'
import { curveMakers } from '../study/edits/names'
import type { Study } from '../study/schema'
import type { Group } from './suggestions'

/** Requests as people say them, about the first curve of a study, for those who want to see some. */
export function examples(study: Study): Examples {
  const { letter } = study.variable
  const f = curveMakers(study)[0]?.name ?? 'f'
  const free = ['g', 'h', 'r'].find((name) => name !== f && name !== letter)!
  const surface = study.lines.flatMap((line) => surfaceOf(line)?.name ?? [])[0]
  const ofCurves = ofFirst(f, letter, free)
  if (surface === undefined) return ofCurves
  const own = aboutSurface(surface)
  const all = curveMakers(study).length > 0 ? ofCurves : ofCurves.filter(isBeside)
  return [...own, ...all]
}

const isBeside = ({ group }: { group: Group }) => group === 'beside'

/** What is said about a surface. */
const aboutSurface = (z: string): Examples => [
  {
    group: 'surface',
    said: [
      `tangent plane to ${z} at (1, 1)`,
      `directional derivative of ${z} at (1, 1) along (1, 2)`,
      `taylor polynomial of ${z} at (1, 1)`,
      `section of ${z} with y = 1`,
      `critical points of ${z}`,
    ],
  },
]

type Examples = readonly { group: Group; said: readonly string[] }[]

function ofFirst(f: string, letter: string, free: string): Examples {
  return [
    {
      group: 'place',
      said: [
        `tangent to ${f} at 2`,
        `${f}′(1)`,
        `normal to ${f} at 1`,
        `secant to ${f} from 1 to 3`,
        `taylor polynomial of ${f} at 1, order 3`,
        `limit of ${f} as ${letter} → ∞`,
        `is ${f} continuous at 1`,
        `tangent to ${f} through (0, 2)`,
        `tangent to ${f} parallel to y = 2${letter}`,
      ],
    },
    {
      group: 'span',
      said: [
        `area under ${f} from 0 to 2 with 6 strips at the right`,
        `turning points of ${f} on [0, 3]`,
        `where is ${f} = 1`,
        `where is ${f}′ > 0`,
        `average rate of change of ${f} from 1 to 3`,
        `mean value theorem for ${f} on [0, 2]`,
        `table of ${f} from 0 to 2 by 0.25`,
        `length of ${f} from 0 to 1`,
        `search ${f} for a low point from 1 by simplex`,
      ],
    },
    {
      group: 'whole',
      said: [
        `derivative of ${f}`,
        `where is ${f} increasing`,
        `zeros of ${f}`,
        `sign chart of ${f}′`,
        `area function of ${f} from 0`,
        `normals to ${f}, 40 of them`,
      ],
    },
    {
      group: 'beside',
      said: [
        `let ${free}(${letter}) = ${f}(${letter}) + 1`,
        'slider k from 0 to 5 by 0.1',
        `marker raft on ${f} at 1`,
        `note The slope is {${f}'(1)}`,
        'part Slopes',
        'surface z = x² y - x',
      ],
    },
  ]
}

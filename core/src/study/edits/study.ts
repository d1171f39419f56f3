import type { Display, Variable } from '../../vocabulary/members'
import type { Study } from '../schema'
import type { Edit } from './edit'

export const changeStudy =
  (change: Partial<Pick<Study, 'title' | 'about' | 'decimals'>>): Edit =>
  (study) => ({ ...study, ...change })

export const changeVariable =
  (change: Partial<Omit<Variable, 'letter'>>): Edit =>
  (study) => ({ ...study, variable: { ...study.variable, ...change } })

export const changeDisplay =
  (change: Partial<Display>): Edit =>
  (study) => ({ ...study, display: { ...study.display, ...change } })

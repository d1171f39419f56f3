import { kindOf } from '../statements'
import type { SliderRole } from '../statements/contract'
import type { Study } from './schema'

/** What a slider is for in the first line that uses it for something of its own, or null. */
export function sliderRole(study: Study, name: string): SliderRole | null {
  for (const line of study.lines) {
    const role = kindOf(line).sliderRoles?.(line)[name]
    if (role) return role
  }
  return null
}

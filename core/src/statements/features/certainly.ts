import type { Feature } from '../../features/examination'
import type { LineContext } from '../contract'
import { type Shown, shownFeature } from '../shared/exactPlaces'
import { remember, type SpanFacts } from '../shared/spanFacts'
import { endOf } from '../shared/toldNumbers'
import type { FeaturesLine } from './line'

/** A place and its value with the digits that are certain; those that are not carry ≈. */
export function certainly(
  facts: SpanFacts,
  feature: Feature,
  { span }: Pick<FeaturesLine, 'span'>,
  context: LineContext,
): Shown {
  const { decimals } = context
  const end = feature.x === facts.from ? span.from : feature.x === facts.to ? span.to : null
  const typed = end === null ? null : endOf(end, feature.x, context).tree
  return remember(facts, `shown ${decimals} ${feature.x} ${feature.value} ${end ?? ''}`, () =>
    shownFeature(facts.f, feature, decimals, typed),
  )
}

/** q′, or ∫q for the area from the beginning of the span. */
export const laneTitle = ({ curve, order }: { curve: string; order: number }) =>
  order < 0 ? `∫${curve}` : curve + '′'.repeat(order)

/** What JSON can hold. */
export type Json = null | boolean | number | string | Json[] | { [member: string]: Json }

export const isRecord = (value: unknown): value is { [member: string]: Json } =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

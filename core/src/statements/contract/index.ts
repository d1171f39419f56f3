/** What a kind of line is to the rest of the project, and what it speaks with. */
export * from './actions'
export * from './context'
export * from './curves'
export * from './kind'
export * from './marks'
export * from './requests'
export * from './results'
export * from './sentence'

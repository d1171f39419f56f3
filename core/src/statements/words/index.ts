export { type FilledRun, type FilledWords, fillWords, plainMaths } from './fill'
export { readWords, renameInWords, type Run } from './read'

export { blankStudy } from '@yperkine/core'

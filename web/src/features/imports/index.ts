/** What other features may show of this one. */
export { FileContents } from './FileContents'
export { ImportSteps } from './ImportSteps'

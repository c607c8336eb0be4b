/** What other features may show of this one. */
export { ImportSteps } from './ImportSteps'

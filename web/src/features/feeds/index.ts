/** What other features may show of this one. */
export { FeedsPart } from './FeedsPart'

/** What other features may show of this one. */
export { LinksPart } from './LinksPart'
export { MadeLink } from './MadeLink'

/** What other features may show of this one. */
export { CoverNote } from './CoverNote'
export { TakenNote } from './TakenNote'

/** What other features may show of this one. */
export { AccessList } from './AccessList'
export { AskForm } from './AskForm'
export { GiveForm } from './GiveForm'
export { GiveGroupForm } from './GiveGroupForm'
export { HistoryPart } from './HistoryPart'

/** What other features may show of this one. */
export { AgreementPart } from './AgreementPart'
export { backQuery } from './absenceQueries'

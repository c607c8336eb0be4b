/** What other features may show of this one. */

export { EndAccountPart } from './EndAccountPart'
export { PasswordPart } from './PasswordPart'
export { SignInForm } from './SignInPage'

/** What other features may show of this one. */

export { PasswordPart } from './PasswordPart'
export { SignInForm } from './SignInPage'

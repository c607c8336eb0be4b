/** What other features may show of this one. */
export { SignInForm } from './SignInPage'

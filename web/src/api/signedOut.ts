/** Asks whoever is before the screen to sign in again, and says whether they did. */
type AskAgain = () => Promise<boolean>

let ask: AskAgain | null = null
let asked: Promise<boolean> | null = null

/** Has a page that needs an account say how it asks; it returns how it stops. */
export function whenSignedOut(askAgain: AskAgain): () => void {
  ask = askAgain
  return () => {
    if (ask === askAgain) ask = null
  }
}

/** Whether somebody is signed in again after a request was refused for want of it: asked once for all that wait. */
export function signedInAgain(): Promise<boolean> {
  if (!ask) return Promise.resolve(false)
  asked ??= ask().finally(() => {
    asked = null
  })
  return asked
}

import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import { ProblemError } from '../../api/problem'

/** One's own passkeys. */
export const passkeysQuery = queryOptions({
  queryKey: ['passkeys'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/passkeys', { signal })),
  staleTime: 0,
})

/** Whether this browser knows of passkeys at all. */
export const canHavePasskeys = () =>
  typeof PublicKeyCredential !== 'undefined' && 'parseCreationOptionsFromJSON' in PublicKeyCredential

/** Asks this device for a new passkey and keeps it under a name; the password is asked for once more. */
export async function addPasskey(name: string, password: string) {
  const { options } = await unwrap(api.POST('/api/passkeys/question', { body: { password } }))
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(
    options as PublicKeyCredentialCreationOptionsJSON,
  )
  const credential = await asked(() => navigator.credentials.create({ publicKey }))
  return unwrap(api.POST('/api/passkeys', { body: { name, credential } }))
}

/** Signs in by a passkey that this device offers. */
export async function signInWithPasskey() {
  const { options } = await unwrap(api.POST('/api/session/passkey/question'))
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(
    options as PublicKeyCredentialRequestOptionsJSON,
  )
  const credential = await asked(() => navigator.credentials.get({ publicKey }))
  return unwrap(api.POST('/api/session/passkey', { body: { credential } }))
}

export const renamePasskey = (passkeyId: string, name: string) =>
  unwrap(api.PUT('/api/passkeys/{passkeyId}', { params: { path: { passkeyId } }, body: { name } }))

export const takeOutPasskey = (passkeyId: string) =>
  unwrap(api.DELETE('/api/passkeys/{passkeyId}', { params: { path: { passkeyId } } }))

async function asked(ask: () => Promise<Credential | null>) {
  try {
    const credential = await ask()
    if (credential instanceof PublicKeyCredential) return credential.toJSON()
    throw refused('This device did not answer. Try again, or use your password.')
  } catch (bad) {
    throw bad instanceof DOMException ? refused(deviceSentence(bad.name)) : bad
  }
}

const refused = (detail: string) => ProblemError.from({ type: 'urn:mortar:passkey', detail }, 0)

/** What a device's refusal means (Web Authentication, 5.1.3 and 5.1.4), and what to do. */
export function deviceSentence(name: string): string {
  switch (name) {
    case 'InvalidStateError':
      return 'This device has a passkey for your account already.'
    case 'SecurityError':
      return 'Passkeys need Mortar to be reached by a name and https; a number such as 127.0.0.1 has none. Use your password here.'
    case 'NotSupportedError':
    case 'ConstraintError':
      return 'This device cannot ask for a finger, a face or a PIN, which a passkey needs. Use another one, or your password.'
    default:
      return 'The device was not asked to the end, or said no. Try again, or use your password.'
  }
}

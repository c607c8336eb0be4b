import { isSaidAt, sentenceOf } from '../api/problem'
import { Alert } from './Alert'

interface FormProblemProps {
  error: unknown
  /** The fields that say themselves what is wrong with them: it is not said a second time here. */
  fields: readonly string[]
  /** Said before it. */
  before?: string
}

/** What is wrong with a form as a whole, under it; nothing where each of its problems stands at its field. */
export function FormProblem({ error, fields, before = '' }: FormProblemProps) {
  if (error === null || error === undefined || isSaidAt(error, fields)) return null
  return (
    <Alert>
      {before}
      {sentenceOf(error)}
    </Alert>
  )
}

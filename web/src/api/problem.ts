/** A problem as the server tells it (RFC 9457), with a sentence a person can act on. */
export class ProblemError extends Error {
  readonly status: number
  readonly type: string
  readonly fields: Record<string, string>
  readonly current: unknown

  private constructor(
    status: number,
    type: string,
    detail: string,
    fields: Record<string, string>,
    current: unknown,
  ) {
    super(detail)
    this.status = status
    this.type = type
    this.fields = fields
    this.current = current
  }

  static from(body: unknown, status: number): ProblemError {
    const { type, detail, fields, current } = isRecord(body) ? body : {}
    return new ProblemError(
      status,
      typeof type === 'string' ? type : 'urn:mortar:unknown',
      typeof detail === 'string' ? detail : 'Mortar did not answer as expected. Try again.',
      isRecord(fields)
        ? Object.fromEntries(Object.entries(fields).map(([path, sentence]) => [path, String(sentence)]))
        : {},
      current,
    )
  }
}

/** What to tell somebody of an error of any kind. */
export const sentenceOf = (error: unknown): string =>
  error instanceof ProblemError
    ? error.message
    : error instanceof TypeError
      ? 'Mortar cannot be reached. Check the connection; nothing was lost, try again.'
      : 'Something went wrong. Try again.'

/** What is wrong with one field; undefined where nothing is. */
export const fieldProblem = (error: unknown, path: string): string | undefined =>
  error instanceof ProblemError ? error.fields[path] : undefined

/** Whether each problem of an error stands at one of some fields, so that it need not be said again. */
export const isSaidAt = (error: unknown, fields: readonly string[]): boolean => {
  const wrong = error instanceof ProblemError ? Object.keys(error.fields) : []
  return wrong.length > 0 && wrong.every((field) => fields.includes(field))
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null

/** What has come since it was last looked; nothing where a screen has just opened. */
export function arrived<T extends { key: string }>(
  known: ReadonlySet<string> | null,
  now: readonly T[],
): readonly T[] {
  return known === null ? [] : now.filter((one) => !known.has(one.key))
}

/** How far something long is; null where nobody can know. */
export function Progress({ label, part }: { label: string; part: number | null }) {
  return (
    <label className="grid gap-1">
      <span role="status">{label}</span>
      <progress className="h-3 w-full accent-ink" value={part ?? undefined} max={1} />
    </label>
  )
}

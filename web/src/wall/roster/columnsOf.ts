/** The days of the roster beside each other, equally wide and never narrower than can be read (theme.css). */
export const columnsOf = (days: readonly string[]) => ({
  gridTemplateColumns: `repeat(${days.length}, minmax(var(--roster-day), 1fr))`,
})

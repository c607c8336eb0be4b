/** A last day to begin with, where access is for a time only. */
export const inThreeMonths = (): string => {
  const day = new Date()
  day.setUTCMonth(day.getUTCMonth() + 3)
  return day.toISOString().slice(0, 10)
}

/** How often something is fetched: "every quarter of an hour", "every 4 hours", "once a day". */
export function everyText(minutes: number): string {
  if (minutes >= 24 * 60) return 'once a day'
  if (minutes === 15) return 'every quarter of an hour'
  if (minutes === 60) return 'every hour'
  return minutes % 60 === 0 ? `every ${minutes / 60} hours` : `every ${minutes} minutes`
}

/** First and last day of a month such as 2026-10. */
export function monthDays(period: string): { start: string; end: string } {
  const [year, month] = period.split('-').map(Number) as [number, number]
  const last = new Date(Date.UTC(year, month, 0)).getUTCDate()
  return { start: `${period}-01`, end: `${period}-${String(last).padStart(2, '0')}` }
}

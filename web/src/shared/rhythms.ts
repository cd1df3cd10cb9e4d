/** How often work comes back, by its minutes. */
export type Rhythm = 60 | 1440 | 10080
export const DAILY: Rhythm = 1440
export const RHYTHMS: Record<string, string> = { 60: 'every hour', 1440: 'every day', 10080: 'every week' }
/** As it is chosen: "" for never. */
export const rhythmOf = (chosen: string) => (Number(chosen) || null) as Rhythm | null

/** A minute of a day as a clock shows it, and back. */
export const clockOf = (minute: number) => {
  const m = ((minute % 1440) + 1440) % 1440
  return `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`
}
export const minuteOf = (clock: string) => {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number)
  return 60 * hours + minutes
}

/** Dates as "2026-12-05", by the calendar on the wall. */
export const dateOf = (d: Date) =>
  `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`
export const dayAfter = (date: string, days: number) => {
  const d = new Date(`${date}T12:00`)
  d.setDate(d.getDate() + days)
  return dateOf(d)
}
export const inWords = (date: string) =>
  new Date(`${date}T12:00`).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })

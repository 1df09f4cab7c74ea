import dayjs from 'dayjs'

/** "Mon 9:05", or with the date when it is more than six days off. */
export function whenShort(iso: string): string {
  const at = dayjs(iso)
  return Math.abs(dayjs().diff(at, 'day')) > 6 ? at.format('D MMM YYYY H:mm') : at.format('ddd H:mm')
}

/** "Friday, about 9" for something to come. */
export function whenAbout(ms: number): string {
  const at = dayjs(ms)
  const days = at.startOf('day').diff(dayjs().startOf('day'), 'day')
  const hour = at.add(30, 'minute').format('H')
  if (ms <= Date.now()) return 'now'
  if (days === 0) return `today, about ${hour}:00`
  if (days === 1) return `tomorrow, about ${hour}:00`
  return days < 7 ? `${at.format('dddd')}, about ${hour}:00` : at.format('D MMMM')
}

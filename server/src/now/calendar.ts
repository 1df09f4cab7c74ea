import type { Owed } from '@treadle/core'
import ical, { ICalAlarmType, ICalCalendarMethod } from 'ical-generator'

interface OwingTag {
  job: { id: string; number: number }
  clock: { name: string }
  owner: { name: string }
  owed: Owed[]
}

/** What has a time, as an iCalendar: each with its clock, why it is owed, and a call a quarter of an hour before. */
export function calendarOf(workshop: string, tags: OwingTag[]): string {
  const calendar = ical({ name: `${workshop}: Now`, method: ICalCalendarMethod.PUBLISH, prodId: '//treadle//now//EN' })
  for (const { job, clock, owner, owed } of tags)
    for (const thing of owed) {
      if (thing.dueS === null) continue
      const start = new Date(thing.dueS * 1000)
      calendar
        .createEvent({
          id: `${job.id}-${thing.kind}-${thing.subject}@treadle`,
          start,
          end: new Date(start.getTime() + 15 * 60_000),
          summary: `${thing.title}: ${clock.name}`,
          description: `${thing.why} ${owner.name}, job ${job.number}.`,
          location: workshop,
        })
        .createAlarm({ type: ICalAlarmType.display, trigger: 15 * 60 })
    }
  return calendar.toString()
}

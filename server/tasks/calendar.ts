import ical, { ICalAlarmType, ICalEventBusyStatus } from 'ical-generator'
import { formatFor } from '~~/core/hours/format'
import { sayWallMoment } from '~~/core/hours/say'
import { readHabits } from '../identity/habits'
import type { SignedIn } from '../identity/sign-in'
import { openTasks } from './tasks'

/** How long a task takes up in a calendar: nobody has said, and something has to be shown. */
const QUARTER_MS = 15 * 60_000

/**
 * My open tasks and call-backs as a calendar (iCalendar, RFC 5545). Times are instants, so that they are right whatever
 * a calendar program knows of zones; in words they stand by the clock where the person is.
 *
 * @param language of whoever asks, for how times are written where they have not chosen it (BCP 47)
 */
export async function myCalendar(asker: SignedIn, language: string, now: Date): Promise<string> {
  const format = formatFor((await readHabits(asker.id)).format, language)
  const calendar = ical({ name: `Tasks of ${asker.name}`, prodId: { company: 'Plauder', product: 'Plauder', language: 'EN' } })
  for (const { id, kind, title, dueAt, wallTime, zone, record } of await openTasks(asker, 'mine')) {
    const event = calendar.createEvent({
      id: `${id}@plauder`,
      stamp: now,
      start: new Date(dueAt),
      end: new Date(dueAt + QUARTER_MS),
      summary: kind === 'call-back' ? `Call ${record.name}` : `${title}: ${record.name}`,
      description: sayWallMoment({ wallTime, zone }, now.getUTCFullYear(), format),
      busystatus: ICalEventBusyStatus.FREE,
    })
    event.createAlarm({ type: ICalAlarmType.display, trigger: 0 })
  }
  return calendar.toString()
}

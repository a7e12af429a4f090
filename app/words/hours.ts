import { MONTHS, sayDay, WEEKDAYS } from '~~/core/hours/say'
import type { HoursWindow, WeekHours } from '~~/core/hours/week'
import { readersFormat } from './reader'
import { timeOfDay } from './time'

/** "21:30" of 21.5; a day that goes on to its end ends at "24:00". */
export const hourWords = (hour: number): string =>
  hour === 24 ? 'midnight' : timeOfDay(`${String(Math.floor(hour)).padStart(2, '0')}:${hour % 1 === 0 ? '00' : '30'}`)

export const windowWords = (window: HoursWindow | null): string =>
  window ? `${hourWords(window.from)} to ${hourWords(window.to)}` : 'not at all'

/** "1 Dec 2026", of a day of which nobody asks what day of the week it was. */
export function dateWords(date: string): string {
  const [year, month, day] = date.split('-').map(Number) as [number, number, number]
  return sayDay({ day, month: MONTHS[month - 1]!.slice(0, 3), year }, readersFormat())
}

/** From Monday on, as people say a week. */
const ORDER = [1, 2, 3, 4, 5, 6, 0]

/** "Mon to Fri 9:00 to 21:00, Sat to Sun 10:00 to 18:00"; of a week whose days are all alike the hours alone. */
export function weekWords(week: WeekHours): string {
  const runs: { from: number, to: number, hours: string }[] = []
  for (const weekday of ORDER) {
    const hours = windowWords(week[weekday] ?? null)
    const last = runs.at(-1)
    if (last?.hours === hours) last.to = weekday
    else runs.push({ from: weekday, to: weekday, hours })
  }
  if (runs.length === 1) return runs[0]!.hours
  const short = (weekday: number) => WEEKDAYS[weekday]!.slice(0, 3)
  return runs.map(({ from, to, hours }) => `${from === to ? short(from) : `${short(from)} to ${short(to)}`} ${hours}`).join(', ')
}

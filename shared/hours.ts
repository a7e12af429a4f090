import type { WeekHours } from '../core/hours/week'

/** The hours of a place, as the law has them and as an admin has said. */
export interface PlaceHours {
  /** ISO 3166-2, or a country. */
  place: string
  /** Those in force beside everybody's; null where nothing stricter is held to. */
  week: WeekHours | null
  law: { week: WeekHours, source: string, asOf: string } | null
  /** Who has said otherwise than the law, and when; null where the law holds as it is. */
  chosen: { by: string, at: number } | null
}

export interface ClosedDayRow { id: string, place: string | null, day: string, name: string }

/** A country in which the firm has people or lines, and its next public holidays. */
export interface HolidayCountry { country: string, kept: boolean, next: { day: string, name: string }[] }

/** Everything about the hours in which people are reached. Days are those of the asker's calendar. */
export interface HoursFront {
  today: string
  places: PlaceHours[]
  countries: HolidayCountry[]
  closed: ClosedDayRow[]
}

import type { HoursWindow, WeekHours } from './week'

/** Hours that are stricter than those of everybody, as a place's own rules have them. */
export interface PlaceLaw {
  /** A country, or a state or province: ISO 3166-2, "US-TX". */
  place: string
  week: WeekHours
  source: string
  /** As of which day the value is. */
  asOf: string
}

const hours = (from: number, to: number): HoursWindow => ({ from, to })
const daily = (from: number, to: number): WeekHours => Array.from({ length: 7 }, () => hours(from, to))
const onSundays = (week: WeekHours, sunday: HoursWindow | null): WeekHours => [sunday, ...week.slice(1)]

const AS_OF = '2026-12-01'

/**
 * Stricter hours for sales calls and texts. They are held to unless an admin says otherwise; whoever runs it checks them, since
 * laws change: each is shown with its source and its day. The values are those of a list of published ones, in which these sources stand;
 * they were not held against the texts of the laws.
 */
export const LAWS: readonly PlaceLaw[] = [
  { place: 'CA', week: [hours(10, 18), ...Array.from({ length: 5 }, () => hours(9, 21.5)), hours(10, 18)], source: 'CRTC Unsolicited Telecommunications Rules', asOf: AS_OF },
  { place: 'US-AL', week: onSundays(daily(8, 20), null), source: 'telemarketing statute of Alabama', asOf: AS_OF },
  { place: 'US-CT', week: daily(9, 20), source: 'telemarketing statute of Connecticut', asOf: AS_OF },
  { place: 'US-FL', week: daily(8, 20), source: 'Florida Statutes 501.616', asOf: AS_OF },
  { place: 'US-MD', week: daily(8, 20), source: 'telemarketing statute of Maryland', asOf: AS_OF },
  { place: 'US-OK', week: daily(8, 20), source: 'telemarketing statute of Oklahoma', asOf: AS_OF },
  { place: 'US-TX', week: onSundays(daily(9, 21), hours(12, 21)), source: 'telemarketing statute of Texas', asOf: AS_OF },
  { place: 'US-WA', week: daily(8, 20), source: 'telemarketing statute of Washington', asOf: AS_OF },
]

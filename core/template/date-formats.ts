/** Named formats for people who do not speak strftime. */
export const DATE_FORMATS: Record<string, string> = {
  day: '%a %-d %b',
  long: '%A %-d %B',
  weekday: '%A',
  time: '%-H:%M',
  moment: '%a %-d %b, %-H:%M',
}

import { addDays, dayAt, dayStart } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import type { ColleagueForm } from '~~/shared/schemas/people'
import { badInput } from '../http/problem'
import type { SignedIn } from './sign-in'

/** Nobody is let in from outside for longer. */
const LONGEST_DAYS = 90

/**
 * A helper from outside is in no team, and helps until the end of a day as the clock of the admin has it. All others have no
 * such day.
 *
 * @throws Problem 422 at the day
 */
export function asHelper<Form extends ColleagueForm>(admin: SignedIn, form: Form, now: Date) {
  if (form.role !== 'helper') return { ...form, helpsUntil: null }
  const rules = zoneRules(admin.zone)!
  const today = dayAt(rules, now.getTime())
  const day = form.helpsUntil!
  if (day < today) throw badInput({ helpsUntil: 'This day is over. Choose today or a later one.' })
  if (day > addDays(today, LONGEST_DAYS))
    throw badInput({ helpsUntil: `Nobody is let in for longer than ${LONGEST_DAYS} days. Choose an earlier day; it can be put off later.` })
  return { ...form, teamIds: [], helpsUntil: new Date(dayStart(rules, addDays(day, 1))) }
}

/** As the audit log keeps it. */
export const untilNoted = ({ helpsUntil }: { helpsUntil: Date | null }) => helpsUntil ? { helpsUntil: helpsUntil.toISOString() } : {}

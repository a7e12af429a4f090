import { eq, isNull, sql } from 'drizzle-orm'
import { sayLasting } from '~~/core/money/pace'
import { countryName } from '~~/core/places/countries'
import { leftIn } from '~~/core/money/purse'
import { DISPOSITION_MODULES } from '~~/shared/calling'
import { MODULE_FACTS } from '~~/shared/modules'
import { can, SETTING_UP } from '~~/shared/permissions'
import type { SetUpFacts, SetUpFront, SetUpToDo, SetUpWait } from '~~/shared/set-up'
import { allCarriers, carrierRegistered } from '../carriers/registry'
import { ask, read } from '../db/door'
import { textArray } from '../db/instants'
import {
  carrierPrice,
  colleague,
  customField,
  disposition,
  firm,
  invitation,
  job,
  line,
  pipeline,
  numberPorting,
  registration,
  setAsideEvent,
  team,
  template,
} from '../db/schema'
import { notAllowed } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { listAccounts } from '../money/accounts'
import { countAsks } from '../money/asks'

/**
 * What is set up, and what is still to be done before everybody can work.
 *
 * @throws Problem 403 for who sets nothing up
 */
export async function readSetUp(asker: SignedIn, now: Date): Promise<SetUpFront> {
  const carriers = allCarriers()
  if (!SETTING_UP.some(permission => can(asker, permission, {}))) throw notAllowed('see how things are set up; leads and admins do')
  const { rows: [facts] } = await ask<SetUpFacts & Record<string, unknown>>(sql`
    select (select texting_on from ${firm}) as "textingOn",
      (select count(*) from ${colleague} where left_at is null)::int as colleagues, (select count(*) from ${team})::int as teams,
      (select count(*) from ${line} where active)::int as lines, (select count(*) from ${line} where state in ('ordered', 'paused'))::int as "closedLines",
      (select count(*) from ${line} where active and greeting is null)::int as "withoutGreeting",
      (select count(*) from ${line} l where active and l.carrier = any(${textArray(carriers.filter(one => one.prices).map(one => one.name))}) and not exists (select 1 from ${carrierPrice} p where p.carrier = l.carrier
        and p.country = l.country))::int as "withoutPrice",
      (select count(*) from ${pipeline})::int as pipelines, (select count(*) from ${customField} where retired_at is null)::int as fields,
      (select count(*) from ${template} where retired_at is null)::int as templates,
      (select count(*) from ${disposition} where retired_at is null)::int as dispositions,
      (select coalesce(json_agg(distinct module), '[]') from ${disposition} where retired_at is null) as "disposedModules",
      (select count(*) from ${job} where dead_at is not null and done_at is null)::int + (select count(*) from ${setAsideEvent} where settled_at is null)::int as stuck,
      (select count(*) from ${registration} where state in ('asked-back', 'refused'))::int as "sentBack",
      (select count(*) from ${numberPorting} p join ${line} l on l.id = p.line_id where l.state = 'ordered' and p.state = 'sent-back')::int as "portingsBack"`)
  const away = carriers.filter(carrier => carrier.state?.()?.is === 'away').map(({ title }) => title)
  const paying = can(asker, 'money.edit', {})
  const [money, asks] = paying ? [await listAccounts(now), await countAsks()] : [[], 0]
  const all = { ...facts!, carriers: carriers.length, away, money, asks }
  return { facts: all, toDo: toDo(all).filter(({ needs }) => needs === null || can(asker, needs, {})), theirs: await theirs(asker) }
}

/** What others take their time over: what has waited longest comes first. */
async function theirs(asker: SignedIn): Promise<SetUpWait[]> {
  const all: SetUpWait[] = []
  if (can(asker, 'carrier.edit', {})) {
    const papers = await read(database => database.select().from(registration).where(eq(registration.state, 'handed-in')))
    all.push(...papers.map(({ carrier, country, handedAt, leastDays, mostDays }) => ({
      what: `${carrierRegistered(carrier)?.title ?? 'A carrier'} looks through the papers for ${countryName(country)}`,
      since: handedAt.getTime(), until: null, usual: { leastDays, mostDays }, to: '/set-up/papers',
    })))
  }
  if (can(asker, 'line.edit', {})) {
    const ordered = await read(database => database
      .select({ name: line.name, turnsAt: line.turnsAt, from: numberPorting.from, state: numberPorting.state, day: numberPorting.day })
      .from(line).leftJoin(numberPorting, eq(numberPorting.lineId, line.id)).where(eq(line.state, 'ordered')))
    all.push(...ordered.filter(({ state }) => state !== 'sent-back').map(({ name, turnsAt, from, day }) => ({
      what: from ? `The number of “${name}” is brought over from ${from}` : `The number of “${name}” is being set up`,
      since: null, until: day ? Date.parse(`${day}T12:00Z`) : turnsAt?.getTime() ?? null, usual: null, to: '/set-up/lines',
    })))
  }
  if (can(asker, 'people.edit', {})) {
    const invited = await read(database => database.select({ name: invitation.name, madeAt: invitation.madeAt, endsAt: invitation.endsAt })
      .from(invitation).where(isNull(invitation.colleagueId)))
    all.push(...invited.map(({ name, madeAt, endsAt }) =>
      ({ what: `${name} has not joined yet`, since: madeAt.getTime(), until: endsAt.getTime(), usual: null, to: '/set-up/people' })))
  }
  return all.sort((a, b) => (a.since ?? Infinity) - (b.since ?? Infinity))
}

/** What keeps somebody from working, the worst first. */
function toDo(facts: SetUpFacts): SetUpToDo[] {
  const missing = DISPOSITION_MODULES.filter(module => !facts.disposedModules.includes(module))
  const many = (count: number, one: string, several: string) => `${count} ${count === 1 ? one : several}`
  const all: (SetUpToDo & { is: boolean })[] = [
    { is: !facts.textingOn, what: 'Texting is switched off.', then: 'Only admins can send texts, to try it. Read the terms of use, and switch it on.', to: '/set-up/texting', needs: 'texting.switch' },
    { is: facts.lines === 0, what: 'No line is in use.', then: 'Nobody can text or call.', to: '/set-up/lines', needs: 'line.edit' },
    {
      is: facts.away.length > 0,
      what: `${facts.away.join(' and ')} cannot be reached.`,
      then: 'Texts over it wait. Look why.',
      to: '/set-up/carriers',
      needs: 'carrier.edit',
    },
    {
      is: facts.sentBack > 0,
      what: `${many(facts.sentBack, 'carrier has', 'carriers have')} sent papers back.`,
      then: 'Answer what is asked, and hand them in again.',
      to: '/set-up/papers',
      needs: 'carrier.edit',
    },
    {
      is: facts.portingsBack > 0,
      what: `${many(facts.portingsBack, 'number', 'numbers')} could not be brought over yet.`,
      then: 'Put right what was wrong, and ask again.',
      to: '/set-up/lines',
      needs: 'line.edit',
    },
    {
      is: facts.asks > 0,
      what: `${many(facts.asks, 'colleague', 'colleagues')} could not send a text that was to be paid.`,
      then: 'Add to the balance, or change a limit.',
      to: '/set-up/money',
      needs: 'money.edit',
    },
    ...facts.money.filter(({ runsOut }) => runsOut).map((account): SetUpToDo & { is: boolean } => ({
      is: true,
      what: leftIn(account) <= 0 ? `Nothing is left to pay texts with in ${account.currency}.` : `What is left in ${account.currency} runs out.`,
      then: leftIn(account) <= 0 ? 'None leaves until something is paid in.' : `At the pace of the last days it lasts ${sayLasting(account.lastsDays!)}.`,
      to: '/set-up/money',
      needs: 'money.edit',
    })),
    { is: facts.stuck > 0, what: `${many(facts.stuck, 'thing', 'things')} got stuck.`, then: 'Look why, and start them again.', to: '/set-up/stuck', needs: 'stuck.see' },
    {
      is: facts.withoutPrice > 0,
      what: `Of ${many(facts.withoutPrice, 'line', 'lines')} the carrier has told no price.`,
      then: 'Texts from them do not leave until it has.',
      to: '/set-up/lines',
      needs: 'line.edit',
    },
    {
      is: facts.withoutGreeting > 0,
      what: `${many(facts.withoutGreeting, 'line has', 'lines have')} no greeting.`,
      then: 'Callers can leave no message there: it rings on.',
      to: '/set-up/lines',
      needs: 'line.edit',
    },
    {
      is: missing.length > 0,
      what: `There are no dispositions for ${missing.map(module => MODULE_FACTS[module].many.toLowerCase()).join(' and ')}.`,
      then: 'After a call nothing can be said but a note.',
      to: '/set-up/dispositions',
      needs: 'disposition.edit',
    },
    { is: facts.templates === 0, what: 'There are no templates.', then: 'Everybody types every text.', to: '/templates', needs: 'template.for-all' },
  ]
  return all.filter(({ is }) => is).map(({ is: _is, ...one }) => one)
}

import { stageNamed } from './pipelines'
import { storedPhone } from '../server/records/phones'
import type { Staff } from './generate'
import type { DemoPlace } from './places'
import { History, type LineRow, type Person } from './history'
import { idAt, type Rows } from './rows'

type Place = Pick<DemoPlace, 'city' | 'region' | 'country' | 'zone'>

const MINUTE = 60_000
const DAY = 1440 * MINUTE

/** The people whom the scenario names, with texts that are minutes old. */
export function addCast(rows: Rows, staff: Staff, now: Date): void {
  const history = new History(rows)
  const ago = (minutes: number) => new Date(now.getTime() - minutes * MINUTE)
  const { ada, mika, noor } = staff.colleagues as Record<string, string>
  const { portland, minneapolis, halifax, bristol } = staff.lines as Record<string, Staff['lines'][string]>
  const trialWord = staff.templates['Trial week, first word']!

  const bakery = company('Holm & Daughters Bakery', { city: 'Honolulu', region: 'HI', country: 'US', zone: 'Pacific/Honolulu' }, ada!)
  const iris = person('lead', 'Iris', 'Holm', 'owner', bakery, 'Talking', ada!, { city: 'Honolulu', region: 'HI', country: 'US', zone: 'Pacific/Honolulu' }, [['mobile', '808 555 0142', 'mobile'], ['bakery', '808 555 0109', 'landline']], { bikes: '4 long-johns, 1 trike', budget: 640, came_by: 'Website form', trial_day: day(8) })
  history.made(iris, ada!, ago(330 * 1440))
  earlier(iris, portland!, ada!, [
    [329, 'ours', 'Hi Iris, Ada from Pannier & Post. You saw our trike at the harbour market. Shall I send you the prices?'],
    [329, 'theirs', 'Yes please, to the mail address on the card'],
    [318, 'ours', 'Hi Iris, did the prices arrive? Any questions, just text me.'],
    [317, 'theirs', 'They did, thanks. My sister wants to wait until the new oven is paid'],
    [317, 'ours', 'Of course. May I write again in spring?'],
    [317, 'theirs', 'Please do'],
    [240, 'ours', 'Hi Iris, spring has come! Is the oven paid? We have two long-johns with the wide box free in May.'],
    [238, 'theirs', 'Almost. We start delivering to the hotels in summer, ask me then'],
    [150, 'ours', 'Hi Iris, how do the hotel deliveries go?'],
    [149, 'theirs', 'Eleven hotels now, all by van. Parking is a nightmare'],
    [149, 'ours', 'That is where a cargo bike shines. Would a trial week help you to decide?'],
    [148, 'theirs', 'Let me get through the holidays first'],
    [60, 'ours', 'Hi Iris, the trial week still stands, whenever you like.'],
    [58, 'theirs', 'I have not forgotten, it is on the fridge'],
  ])
  history.call(iris, false, ada!, 'no answer', 20, ago(240 * 1440 - 55))
  history.call(iris, true, ada!, 'answered', 410, ago(148 * 1440 - 75))
  history.consent(iris, 'agreed', 'form', 'Yes, you may text me about the trial week.', ago(9 * 1440 + 40))
  history.text(iris, portland!, 'ours', 'Hi Iris, Ada from Pannier & Post. Thank you for asking about a trial week for Holm & Daughters Bakery. When may I ring you this week?', ago(9 * 1440 + 12), ada!, { templateId: trialWord.id, version: trialWord.version })
  history.text(iris, portland!, 'theirs', 'Any day after 10, the ovens are quiet then', ago(9 * 1440), ada!)
  history.stage(iris, ada!, 'New', 'Talking', ago(8 * 1440))
  history.call(iris, false, mika!, 'voicemail', 22, ago(2 * 1440 - 90))
  history.note(iris, ada!, 'Delivers bread to eleven hotels before seven. The hill behind the bakery decides whether the trike will do.', ago(1440 + 30))
  history.call(iris, true, ada!, 'answered', 192, ago(15))
  history.text(iris, portland!, 'ours', 'Hi Iris, Ada from Pannier & Post. Good that you rang! Your trial week could start on Tuesday, with two bikes and a trike. Does that suit you?', ago(11), ada!)
  history.text(iris, portland!, 'theirs', 'Perfect. Could we make it Thursday? The oven man comes on Tuesday.', ago(3), ada!)

  const bo = person('candidate', 'Bo', 'Castellanos', 'mechanic', null, 'Talking', noor!, { city: 'Halifax', region: 'NS', country: 'CA', zone: 'America/Halifax' }, [['mobile', '902 555 0161', 'mobile']], { role_wanted: 'mechanic', available_from: day(12), hours_a_week: 30 })
  history.made(bo, noor!, ago(5 * 1440))
  history.consent(bo, 'agreed', 'form', 'You may text me about this application.', ago(5 * 1440))
  history.text(bo, halifax!, 'ours', 'Hi Bo, Noor from Pannier & Post. Could you come by the workshop this week and true a wheel with us?', ago(46), noor!)
  history.text(bo, halifax!, 'theirs', 'Gladly! Wednesday after 3, or is Friday better for you?', ago(26), noor!)

  const rye = rows.records.find(record => record.name === 'Rye & Reason Bakery')!
  const joss = person('client', 'Joss', 'Okafor', 'head baker', rye.id, 'Riding', mika!, { city: 'Minneapolis', region: 'MN', country: 'US', zone: 'America/Chicago' }, [['mobile', '612 555 0177', 'mobile']], { bikes: '4 long-johns', lease_end: day(210), service_day: day(6), monthly: 640 })
  history.made(joss, mika!, ago(300 * 1440))
  history.text(joss, minneapolis!, 'theirs', 'Two of four racks are loose again. Can someone come before the holidays? Mornings only', ago(41), mika!)

  const wren = person('lead', 'Wren', 'Adeyemi', 'owner', null, 'New', ada!, { city: 'Portland', region: 'OR', country: 'US', zone: 'America/Los_Angeles' }, [['mobile', '503 555 0136', 'mobile'], ['shop', '503 555 01', 'unknown']], { came_by: 'Market stall' })
  history.made(wren, ada!, ago(2 * 1440))

  const kofi = person('client', 'Kofi', 'Brandt', 'dispatcher', null, 'Renewing', ada!, { city: 'Bristol', region: null, country: 'GB', zone: 'Europe/London' }, [['mobile', '07700 900161', 'mobile']], { bikes: '6 long-johns', lease_end: day(41), monthly: 960 })
  history.made(kofi, ada!, ago(320 * 1440))
  history.text(kofi, bristol!, 'ours', 'Hi Kofi, Ada from Pannier & Post. The offer for the next two years is in your mail.', ago(3 * 1440), ada!)
  history.text(kofi, bristol!, 'theirs', 'Thanks Ada, will read it with the team', ago(3 * 1440 - 25), ada!)
  history.text(kofi, bristol!, 'ours', 'Take your time. Any questions, just text me.', ago(3 * 1440 - 27), ada!)

  function earlier(person: Person, line: LineRow, colleague: string, texts: [number, 'ours' | 'theirs', string][]): void {
    texts.forEach(([days, side, words], index) => history.text(person, line, side, words, ago(days * 1440 - index * 7), colleague))
  }

  function day(ahead: number): string {
    return new Date(now.getTime() + ahead * DAY).toISOString().slice(0, 10)
  }

  function company(name: string, place: Place, ownerId: string): string {
    const madeAt = ago(200 * 1440)
    const id = idAt(madeAt)
    rows.records.push({ id, module: 'company', name, ownerId, teamId: staff.teams.sales, fields: {}, madeAt, ...place })
    return id
  }

  function person(module: 'lead' | 'client' | 'candidate', first: string, last: string, title: string, companyId: string | null, stage: string, ownerId: string, place: Place, phones: [string, string, 'mobile' | 'landline' | 'unknown'][], fields: Record<string, unknown>) {
    const madeAt = ago(9 * 1440)
    const id = idAt(madeAt)
    rows.records.push({ id, module, firstName: first, lastName: last, name: `${first} ${last}`, title, companyId, stageId: stageNamed(staff.pipelines[module]!, stage), ownerId, teamId: module === 'candidate' ? staff.teams.recruiting : staff.teams.sales, fields, madeAt, mail: `${first}@${last}.example`.toLowerCase(), ...place })
    phones.forEach(([label, typed, kind], position) => rows.phones.push({ id: idAt(madeAt), recordId: id, position, label, ...storedPhone(typed, place.country), kind }))
    return { id, companyId, e164: storedPhone(phones[0]![1], place.country).e164, name: `${first} ${last}` }
  }
}

/** What the named people are on. */
export function addCastMatters(rows: Rows, staff: Staff, now: Date): void {
  const { ada, noor } = staff.colleagues as Record<string, string>
  const named = (name: string) => rows.records.find(record => record.name === name)!
  const day = (ahead: number) => new Date(now.getTime() + ahead * DAY).toISOString().slice(0, 10)
  const madeAt = new Date(now.getTime() - 70 * DAY)
  const iris = named('Iris Holm')
  const add = (record: Omit<Rows['records'][number], 'id' | 'madeAt' | 'companyId'>, person: Rows['records'][number]) => {
    const id = idAt(madeAt)
    rows.records.push({ ...record, id, madeAt, companyId: person.companyId })
    rows.links.push({ recordId: id, personId: person.id!, madeAt })
    return id
  }
  const { id: pipelineId } = staff.pipelines.fleets!
  const sales = { ownerId: ada!, teamId: staff.teams.sales }
  const deal = add({ module: 'deal', name: '4 long-johns and a trike', ...sales, pipelineId, stageId: stageNamed(staff.pipelines.fleets!, 'Test ride'), city: 'Honolulu', region: 'HI', country: 'US', fields: { value: 7680, currency: 'USD', expected: day(24) } }, iris)
  add({ module: 'appointment', name: 'Trial week begins', ...sales, aboutId: deal, stageId: stageNamed(staff.pipelines.appointment!, 'Planned'), fields: { day: day(8), time: '09:00', place: 'the bakery' } }, iris)
  const bo = named('Bo Castellanos')
  const workshop = rows.records.find(record => record.module === 'job' && record.name === 'Mechanic, workshop')!
  rows.links.push({ recordId: workshop.id!, personId: bo.id!, stageId: stageNamed(staff.pipelines.mechanics!, 'Called'), stageSince: new Date(now.getTime() - 2 * DAY), madeAt: bo.madeAt })
  rows.records.push({ id: idAt(madeAt), module: 'appointment', name: 'Workshop day', ownerId: noor!, teamId: staff.teams.recruiting, aboutId: workshop.id, stageId: stageNamed(staff.pipelines.appointment!, 'Planned'), madeAt, fields: { day: day(2), time: '15:00', place: 'the workshop' } })
  rows.links.push({ recordId: rows.records.at(-1)!.id!, personId: bo.id!, madeAt })
}

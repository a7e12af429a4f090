import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { customField } from '~~/server/db/schema'
import { fillerOf, kept } from '~~/server/templates/fillers'
import { beginWith } from '~~/server/texting/strangers'
import { fillForRecord, fillForStranger, fillOneForRecord, tryTemplate } from '~~/server/templates/fill'
import { templateFrom } from '~~/server/templates/from-text'
import { countLength } from '~~/server/templates/length'
import { resultsOf } from '~~/server/templates/results'
import {
  addTemplate,
  changeTemplate,
  countUse,
  listTemplates,
  setFavourite,
  versionsOf,
} from '~~/server/templates/templates'
import { restoreTemplate, retiredTemplates, retireTemplate } from '~~/server/templates/retire'
import {
  editTemplate,
  fillContext,
  fillOne,
  lengthForm,
  makeTemplate,
  templateForm,
  tryTemplate as trial,
} from '~~/shared/schemas/template'
import { retireDisposition, saveDisposition } from '~~/server/calling/disposition-edit'
import { dispositionForm } from '~~/shared/schemas/disposition'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, makeThing, textTo, stageOf, type Firm } from '../../support/firm'
import { clockIn } from '../../support/clocks'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await tx(database =>
    database
      .insert(customField)
      .values({ id: uuid(), module: 'lead', key: 'trial_day', label: 'Trial starts', kind: 'date', example: '2026-12-03', position: 0 }),
  )
})

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const form = (body: string, values: object = {}) => ({ id: uuid(), name: 'Hello', modules: ['lead'], audience: 'team', body, ...values })
const make = (body: string, values: object = {}, who = firm.ada) => addTemplate(who, makeTemplate.validateSync(form(body, values)), DAY)
const change = (id: string, version: number, body: string, values: object = {}, who = firm.ada) =>
  changeTemplate(who, id, editTemplate.validateSync({ ...form(body, values), version }, { stripUnknown: true }), DAY)
const names = async (who: Firm['ada']) => (await listTemplates(who)).map(({ name }) => name)
const WHEN = { key: 'when', label: 'When', kind: 'time', example: '10:30' }

describe('saving a template', () => {
  it('refuses a field that its modules do not have, with the place', async () => {
    await expect(
      make('Hi {{ person.first_name }},\nsee you {{ person.trial_day }}', { modules: ['lead', 'candidate'] }),
    ).rejects.toMatchObject(
      problem(422, {
        fields: { body: 'Line 2, character 12: “person.trial_day” does not exist for candidates, to which this template belongs too.' },
      }),
    )
    await expect(make('{{ company.employees }}')).rejects.toMatchObject({
      details: { fields: { body: expect.stringContaining('There is no field') } },
    })
    await expect(make('At {{ fill_in.when }}')).rejects.toMatchObject({
      details: { fields: { body: expect.stringContaining('fill_in.when') } },
    })
    await make('At {{ fill_in.when }}', { fillIns: [WHEN] })
  })

  it.each([
    [{ fillIns: [WHEN, WHEN] }, /same name/],
    [{ fillIns: [{ ...WHEN, kind: 'choice', options: ['one'] }] }, /at least two/],
    [{ fillIns: [{ ...WHEN, key: 'When at' }] }, /small letters/],
    [{ modules: [] }, /module/],
    [{ name: ' ' }, /name/],
  ])('with %j says what is wrong', (values, reason) => {
    expect(() => makeTemplate.validateSync(form('Hi', values))).toThrow(reason)
  })

  it('keeps every version with who wrote it, and tells when somebody was faster', async () => {
    const id = await make('Hi {{ person.first_name }}')
    await change(id, 1, 'Hello {{ person.first_name }}', {}, firm.odile)
    await expect(change(id, 1, 'Hey')).rejects.toMatchObject({ details: { type: 'stale' } })
    expect((await versionsOf(firm.mika, id)).map(({ version, body, by }) => [version, body, by])).toEqual([
      [2, 'Hello {{ person.first_name }}', 'Odile Marchetti'],
      [1, 'Hi {{ person.first_name }}', 'Ada Lund'],
    ])
  })

  it('is for its owner and for leads', async () => {
    const id = await make('Hi {{ person.first_name }}')
    await expect(change(id, 1, 'Hey', {}, firm.mika)).rejects.toMatchObject(problem(403))
    await change(id, 1, 'Hey {{ person.first_name }}', {}, firm.odile)
    expect((await listTemplates(firm.mika)).find(template => template.id === id)).toMatchObject({
      version: 2,
      owner: 'Ada Lund',
      mayEdit: false,
      team: { name: 'Sales' },
    })
  })
})

describe('who is offered a template', () => {
  it('is its owner, its team, or everyone, as was chosen', async () => {
    await make('Mine', { name: 'For me', audience: 'mine' })
    await make('Ours', { name: 'For sales' })
    await make('All', { name: 'For all', audience: 'all' }, firm.odile)
    expect(await names(firm.ada)).toEqual(expect.arrayContaining(['For me', 'For sales', 'For all']))
    expect(await names(firm.mika)).not.toContain('For me')
    expect(await names(firm.mika)).toContain('For sales')
    expect(await names(firm.noor)).not.toContain('For sales')
    expect(await names(firm.noor)).toContain('For all')
  })

  it('is not decided by who may not: all by a rep, a team by who is not in it', async () => {
    await expect(make('All', { audience: 'all' })).rejects.toMatchObject(
      problem(422, { fields: { audience: expect.stringMatching(/leads/) } }),
    )
    await expect(make('Theirs', { teamId: firm.noor.teamIds[0] })).rejects.toMatchObject(
      problem(422, { fields: { audience: expect.stringMatching(/team/) } }),
    )
    await expect(make('No team', {}, firm.rafe)).rejects.toMatchObject(problem(422))
  })

  it('hides a private one from everybody else, whatever they ask', async () => {
    const id = await make('Mine', { audience: 'mine' })
    const { recordId } = await makeLead(firm.ada)
    for (const ask of [
      () => versionsOf(firm.odile, id),
      () => change(id, 1, 'Hey', {}, firm.odile),
      () => retireTemplate(firm.rafe, id, DAY),
      () => setFavourite(firm.mika, id, true),
      () => fillOneForRecord(firm.mika, recordId, id, fillOne.validateSync({})),
    ]) {
      await expect(ask()).rejects.toMatchObject(problem(404))
    }
  })

  it('is nobody once it is retired', async () => {
    const id = await make('Gone', { name: 'Going' })
    await expect(retireTemplate(firm.mika, id, DAY)).rejects.toMatchObject(problem(403))
    await retireTemplate(firm.ada, id, DAY)
    expect(await names(firm.ada)).not.toContain('Going')
  })

  it('comes back from there for those who may change it', async () => {
    const id = await make('Back', { name: 'Coming back' })
    await retireTemplate(firm.ada, id, DAY)
    expect((await retiredTemplates(firm.ada)).map(one => one.id)).toContain(id)
    expect((await retiredTemplates(firm.mika)).map(one => one.id)).not.toContain(id)
    await expect(restoreTemplate(firm.mika, id, DAY)).rejects.toMatchObject(problem(404))
    await restoreTemplate(firm.ada, id, DAY)
    expect(await names(firm.ada)).toContain('Coming back')
    await expect(restoreTemplate(firm.ada, id, DAY)).rejects.toMatchObject(problem(404))
  })

  it('stays while a disposition sends it, and says which', async () => {
    const id = await make('Hi', { name: 'Sent by key', audience: 'all' }, firm.rafe)
    const key = uuid()
    await saveDisposition(
      firm.rafe,
      dispositionForm.validateSync({ id: key, module: 'lead', name: 'Wants it', family: 'reached', letter: 'q', effects: [{ kind: 'text', templateId: id }] }),
      DAY,
    )
    expect((await listTemplates(firm.ada)).find(one => one.id === id)?.usedBy).toEqual([{ name: 'Wants it', module: 'lead' }])
    await expect(retireTemplate(firm.rafe, id, DAY)).rejects.toMatchObject(
      problem(409, { type: 'in-use', detail: expect.stringContaining('“Wants it” of leads') }),
    )
    await retireDisposition(firm.rafe, key, true, DAY)
    await retireTemplate(firm.rafe, id, DAY)
  })
})

describe('filling a template', () => {
  const filled = async (id: string, recordId: string, who = firm.mika, context: object = {}) =>
    (await fillForRecord(who, recordId, fillContext.validateSync(context))).templates.find(template => template.id === id)

  it('fills it for the record with the sender\'s own words, or says what is missing', async () => {
    const { recordId } = await makeLead(firm.ada, { fields: { trial_day: '2026-12-03' } })
    const other = await makeLead(firm.ada, { firstName: 'Wren' })
    const id = await make(
      'Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}: it starts on {{ person.trial_day | date: "long" }}.',
    )
    expect(await filled(id, recordId)).toMatchObject({
      text: 'Hi Iris, Mika from Pannier & Post: it starts on Thursday, December 3.',
      missing: [],
    })
    expect(await filled(id, other.recordId)).toMatchObject({ text: null, missing: ['Trial starts'] })
    await expect(filled(id, recordId, firm.noor)).rejects.toMatchObject(problem(404))
  })

  it('writes days and times as the person’s own country does, and as their number’s where no address is known', async () => {
    const british = { country: 'GB', region: null, city: 'Bristol' }
    const id = await make('{{ person.trial_day | date: "long" }}, {{ fill_in.when }}', { fillIns: [WHEN] })
    const fields = { trial_day: '2026-12-03' }
    const [here, there, byNumber] = [
      await makeLead(firm.ada, { fields }),
      await makeLead(firm.ada, { fields, ...british }),
      await makeLead(firm.ada, { fields, ...british, country: null }, '+44 7700 900321'),
    ]
    expect(await filled(id, here.recordId)).toMatchObject({ text: 'Thursday, December 3, 10:30 am' })
    expect(await filled(id, there.recordId)).toMatchObject({ text: 'Thursday 3 December, 10:30' })
    expect(await filled(id, byNumber.recordId)).toMatchObject({ text: 'Thursday 3 December, 10:30' })
  })

  it('comes from a text to somebody, in which days stand as they are written', async () => {
    const { recordId } = await makeLead(firm.ada, { fields: { trial_day: '2026-12-03' } })
    expect(await templateFrom(firm.ada, recordId, 'Hi Iris, your trial starts on Thu, Dec 3. Ada')).toEqual({
      body: 'Hi {{ person.first_name }}, your trial starts on {{ person.trial_day }}. {{ sender.first_name }}',
    })
  })

  it('says what the person is on: the first that is not over, or the one that is chosen', async () => {
    const { recordId } = await makeLead(firm.ada)
    await makeThing(firm.ada, 'deal', { name: 'Old fleet', stageId: stageOf('Sales', 'Lost') }, [recordId])
    const [next, later] = [
      await makeThing(firm.ada, 'appointment', { name: 'Test ride', fields: { day: '2026-12-03', time: '9:30' } }, [recordId]),
      await makeThing(firm.ada, 'appointment', { name: 'Second ride', fields: { day: '2026-12-10', time: '14:00' } }, [recordId]),
    ]
    const id = await make('{{ appointment.name }} on {{ appointment.day | date: "day" }}, {{ appointment.time }}')
    const deal = await make('About {{ deal.name }}')
    expect(await filled(id, recordId)).toMatchObject({ text: 'Test ride on Thu, Dec 3, 9:30 am' })
    expect(await filled(id, recordId, firm.mika, { aboutId: later })).toMatchObject({ text: 'Second ride on Thu, Dec 10, 2:00 pm' })
    expect(await filled(deal, recordId)).toMatchObject({ text: null, missing: ['Deal: Name'] })
    expect((await fillForRecord(firm.ada, recordId, fillContext.validateSync({}))).contexts.map(({ id: one }) => one)).toEqual(
      expect.arrayContaining([next, later]),
    )
    await expect(filled(id, recordId, firm.mika, { aboutId: uuid() })).rejects.toMatchObject(problem(422))
  })

  it('asks for its fill-ins, each of its kind, and shows their examples until then', async () => {
    const { recordId } = await makeLead(firm.ada)
    const id = await make('See you {{ fill_in.day | date: "weekday" }} at {{ fill_in.when }}. Ref {{ message.ref }}', {
      fillIns: [WHEN, { key: 'day', label: 'Day', kind: 'date', example: '2026-12-03' }],
    })
    expect(await filled(id, recordId, firm.mika, { ref: '00000150' })).toMatchObject({
      text: 'See you Thursday at 10:30 am. Ref 0000-0150',
      fillIns: [{ key: 'when' }, { key: 'day' }],
    })
    const answer = (answers: object) =>
      fillOneForRecord(firm.ada, recordId, id, fillOne.validateSync({ ref: '00000150', answers }, { stripUnknown: true }))
    await expect(answer({ when: 'noon' })).rejects.toMatchObject(
      problem(422, { fields: { 'answers.when': expect.stringMatching(/14:30/), 'answers.day': 'Fill in “Day”.' } }),
    )
    expect(await answer({ when: '8:15', day: '2026-12-04' })).toMatchObject({ text: 'See you Friday at 8:15 am. Ref 0000-0150' })
  })

  it('offers favourites first, then what I use most', async () => {
    const { recordId } = await makeLead(firm.noor)
    const [seldom, often, near] = [
      await make('A', { name: 'A seldom', teamId: null }, firm.noor),
      await make('B', { name: 'B often' }, firm.noor),
      await make('C', { name: 'C near' }, firm.noor),
    ]
    await countUse(firm.noor.id, often)
    await countUse(firm.noor.id, often)
    await countUse(firm.noor.id, seldom)
    await setFavourite(firm.noor, near, true)
    const order = async () =>
      (await fillForRecord(firm.noor, recordId, fillContext.validateSync({}))).templates
        .map(({ id }) => id)
        .filter(id => [seldom, often, near].includes(id))
    expect(await order()).toEqual([near, often, seldom])
    await setFavourite(firm.noor, near, false)
    expect(await order()).toEqual([often, seldom, near])
  })

  it('takes no text that names a template that is not there, or a version that never was, or somebody else\'s own', async () => {
    const { phoneId } = await makeLead(firm.ada)
    const own = await addTemplate(
      firm.mika,
      { id: uuid(), ...templateForm.validateSync({ name: 'Mika’s own', modules: ['lead'], body: 'Hi there', audience: 'mine' }) },
      DAY,
    )
    for (const [templateId, templateVersion] of [[uuid(), 1], [own, 2], [own, 1]] as const) {
      await expect(sendText(firm.ada, textTo(phoneId, firm.portland, { templateId, templateVersion }), DAY)).rejects.toMatchObject({
        details: { status: 422, fields: { templateId: expect.stringContaining('no such template') } },
      })
    }
    await expect(sendText(firm.mika, textTo(phoneId, firm.portland, { templateId: own, templateVersion: 1 }), DAY)).resolves.toMatchObject({
      leavesAt: expect.any(Number),
    })
  })

  it('tries an unsaved one on a record, with its mistakes', async () => {
    const { recordId } = await makeLead(firm.ada)
    const tryOut = (body: string, on: string | null, fillIns: object[] = []) =>
      tryTemplate(firm.ada, trial.validateSync({ body, modules: ['lead'], recordId: on, fillIns }))
    expect(await tryOut('Hi {{ person.first_name }} at {{ fill_in.when }}', recordId, [WHEN])).toMatchObject({
      text: 'Hi Iris at 10:30 am',
      record: { name: 'Iris Holm' },
    })
    expect(await tryOut('Hi {{ person.trial_day }}', recordId)).toMatchObject({
      text: null,
      holes: [{ label: 'Trial starts', line: 1, column: 4 }],
    })
    expect(await tryOut('Hi {{ person.trail }}', null)).toMatchObject({ text: null, problems: [{ line: 1 }] })
  })
})

describe('what a template did', () => {
  it('is counted by version: what left, what arrived, and what came back within three days, once those are over', async () => {
    const id = await make('Hi {{ person.first_name }}')
    await change(id, 1, 'Hello {{ person.first_name }}')
    const [day, three] = [86_400_000, 3 * 86_400_000]
    const send = async (version: number, when = DAY) => {
      const lead = await makeLead(firm.ada)
      await sendText(firm.ada, textTo(lead.phoneId, firm.portland, { text: version === 1 ? 'Hi Iris' : 'Hello Iris', templateId: id, templateVersion: version }), when)
      await drain(later(when, 10_000))
      return lead
    }
    const answer = (e164: string, text: string, when: Date) =>
      takeEvent('practice', { id: uuid(), at: when, kind: 'received', ref: uuid(), from: e164, to: firm.portland.e164, text }, when)
    fakeCarrier()
    const [answered, late, stopped] = [await send(1), await send(1), await send(1)]
    await send(2)
    await answer(answered.e164, 'Yes', later(DAY, day))
    await answer(late.e164, 'Sorry for the wait', later(DAY, three + day))
    await answer(stopped.e164, 'STOP', later(DAY, day))
    const now = later(DAY, three + 2 * day)
    await send(2, later(now, -day))
    expect(await resultsOf(firm.mika, id, now)).toMatchObject([
      { version: 2, sent: 2, waited: 1, answered: 0, optedOut: 0 },
      { version: 1, sent: 3, waited: 3, answered: 2, optedOut: 1 },
    ])
    expect((await listTemplates(firm.ada)).find(one => one.id === id)!.times).toBe(5)
    await expect(resultsOf(firm.noor, id, now)).rejects.toMatchObject(problem(404))
  })
})

describe('the length over all people', () => {
  it('counts those of the modules who may be seen, piece by piece, with what they are on', async () => {
    const { recordId } = await makeLead(firm.ada, { firstName: 'Maximiliana' })
    await makeThing(firm.ada, 'deal', { name: 'Forty bikes', fields: { value: '900' } }, [recordId])
    const count = (who: Firm['ada'], body: string, modules = ['lead']) =>
      countLength(who, lengthForm.validateSync({ body, modules, fillIns: [WHEN] }))
    const all = await count(firm.ada, 'Hi {{ person.first_name }}, {{ sender.first_name }} here, at {{ fill_in.when }}.')
    expect(all).toMatchObject({ next: null, total: all.tally.people })
    expect(all.tally.longest).toMatchObject({ id: recordId, parts: 1, units: 'Hi Maximiliana, Ada here, at 10:30 am.'.length })
    const about = await count(firm.ada, 'About {{ deal.name }}, {{ deal.value | money }}')
    expect(about.tally.heldPeople).toBe(about.tally.people - 1)
    expect(Object.keys(about.tally.held).sort()).toEqual(['deal.name', 'deal.value'])
    expect((await count(firm.noor, 'Hi {{ person.first_name }}')).tally.people).toBeLessThan(all.tally.people)
    await expect(count(firm.ada, 'Hi {{ person.frist }}')).rejects.toMatchObject(
      problem(422, { fields: { body: expect.stringContaining('Line 1') } }),
    )
  })
})

describe('many wordings', () => {
  it('are kept only as far as they are small together, the ones used last', () => {
    const long = (i: number) => `${i} ${'word '.repeat(900)}`
    for (let i = 0; i < 3_000; i++) fillerOf(long(i))
    expect(kept().characters).toBeLessThanOrEqual(300_000)
    expect(kept().wordings).toBeLessThan(80)
    const last = fillerOf(long(2_999))
    expect(fillerOf(long(2_999))).toBe(last)
    expect(last({ person: {} }, clockIn('America/Denver'))).toMatchObject({ ok: true })
  })

  it('that take long are filled as far as there is time, and others have their turn meanwhile', async () => {
    const { recordId } = await makeLead(firm.mika)
    const slow = `{% if person.first_name == 'x' %}no{% endif %}${'{{ person.first_name | upcase | downcase | capitalize | truncate: 5 }} '.repeat(60)}`
    for (let i = 0; i < 120; i++)
      await addTemplate(
        firm.mika,
        { id: uuid(), ...templateForm.validateSync({ name: `Slow ${i}`, modules: ['lead'], body: `${slow}${i}`, audience: 'mine' }) },
        DAY,
      )
    let others = 0
    const ticking = setInterval(() => others++, 5)
    const { templates } = await fillForRecord(firm.mika, recordId, fillContext.validateSync({}))
    clearInterval(ticking)
    expect(templates.length).toBeGreaterThanOrEqual(120)
    expect(templates.every(({ text, missing }) => text !== null || missing.length > 0)).toBe(true)
    expect(others).toBeGreaterThan(0)
  })
})

describe('templates for whom can be texted and is no person', () => {
  it('speak of a company by its own fields, of a deal with its company, and of nothing that people are on', async () => {
    await make('Hello {{ company.name }} in {{ company.city }}, {{ sender.first_name }} here.', { name: 'To a company', modules: ['company'] })
    await make('About {{ deal.name }} for {{ company.name | default: "you" }}.', { name: 'To a deal', modules: ['deal'] })
    await expect(make('{{ person.first_name }}', { modules: ['company'] })).rejects.toMatchObject(problem(422))
    await expect(make('{{ deal.name }}', { modules: ['company'] })).rejects.toMatchObject(problem(422))
    const company = await makeThing(firm.ada, 'company', { name: 'Rye & Reason', city: 'Hilo' })
    const deal = await makeThing(firm.ada, 'deal', { name: 'Two trikes', companyId: company })
    const texts = async (id: string) => (await fillForRecord(firm.ada, id, fillContext.cast({}))).templates.map(({ text }) => text)
    expect(await texts(company)).toEqual(['Hello Rye & Reason in Hilo, Ada here.'])
    expect(await texts(deal)).toEqual(['About Two trikes for Rye & Reason.'])
    expect(await countLength(firm.ada, lengthForm.validateSync({ body: 'Hello {{ company.name }}', modules: ['company'], fillIns: [] }))).toMatchObject({
      total: 1, tally: { people: 1, held: {} },
    })
  })

  it('are filled for a number on no record without a person: what needs one says so', async () => {
    const { conversationId } = await beginWith(firm.ada, '612 555 0199', {}, DAY)
    await make('Hi {{ person.first_name | default: "there" }}, {{ sender.first_name }} here.', { name: 'With a stand-in' })
    await make('Hi {{ person.first_name }}.', { name: 'Without one' })
    const filled = (await fillForStranger(firm.ada, conversationId!, fillContext.cast({}))).templates
    expect(filled.find(({ name }) => name === 'With a stand-in')!.text).toBe('Hi there, Ada here.')
    expect(filled.find(({ name }) => name === 'Without one')).toMatchObject({ text: null, missing: ['First name'] })
    await expect(fillForStranger(firm.noor, conversationId!, fillContext.cast({}))).rejects.toMatchObject(problem(404))
  })
})

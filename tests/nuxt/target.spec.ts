import { before, settled } from '../support/app'
import { shallowRef } from 'vue'
import type { ComposerStart, LineChoice } from '~~/shared/composer'
import type { RecordDetail, RecordPhone } from '~~/shared/record'
import { useRecordTarget } from '~/composables/target'

const phone = (id: string, e164: string | null, more: Partial<RecordPhone> = {}): RecordPhone =>
  ({
    id,
    label: 'mobile',
    typed: e164 ?? 'n/a',
    e164,
    country: 'US',
    kind: 'mobile-or-landline',
    consent: { texts: null },
    person: null,
    zones: ['Pacific/Honolulu'],
    lastHeardAt: null,
    ...more,
  }) as unknown as RecordPhone
const line = (id: string, e164: string, more: Partial<LineChoice> = {}): LineChoice =>
  ({
    id,
    name: id,
    e164,
    country: 'US',
    active: true,
    mine: false,
    answeredBy: 2,
    away: false,
    price: null,
    languages: [],
    ...more,
  }) as unknown as LineChoice
const record = (phones: RecordPhone[], more: Partial<RecordDetail> = {}): RecordDetail =>
  ({
    id: 'r1',
    module: 'lead',
    name: 'Iris Holm',
    firstName: 'Iris',
    phones,
    zones: [{ name: 'Pacific/Honolulu' }, { name: 'America/Denver' }],
    ...more,
  }) as unknown as RecordDetail
const start = (lines: LineChoice[], lastLine: Record<string, string> = {}): ComposerStart =>
  ({ lines, lastLine, texted: {}, sender: {} }) as unknown as ComposerStart

const HONOLULU = '+18085550142'
const both = [
  line('portland', '+15035550118'),
  line('hilo', '+18085550104'),
  line('own', '+18085550190', { mine: true, private: true }),
  line('halifax', '+19025550120', { country: 'CA' }),
]
beforeEach(() => before({}))

describe('where a text goes', () => {
  it('is the first number that takes texts, from the line that is proposed for it', () => {
    const { phoneId, lineId, why, target, zones } = useRecordTarget(
      () =>
        record([
          phone('none', null),
          phone('out', '+18085550100', { consent: { texts: 'refused' } as never }),
          phone('desk', '+18085550101', { kind: 'landline' as never }),
          phone('p1', HONOLULU),
        ]),
      () => start(both),
    )
    expect([phoneId.value, lineId.value, why.value]).toEqual(['p1', 'hilo', 'near them'])
    lineId.value = 'portland'
    expect(why.value).toBeNull()
    lineId.value = 'hilo'
    expect(target.value).toEqual({ phoneId: 'p1', lineId: 'hilo', conversationId: null, recordId: null })
    expect(zones.value.map(({ name }) => name)).toEqual(['Pacific/Honolulu'])
  })

  it('is the line used last with the number, and another one for a number abroad', async () => {
    const { phoneId, lineId, why, lines } = useRecordTarget(
      () => record([phone('p1', HONOLULU), phone('p2', '+19025550150', { country: 'CA' })]),
      () => start(both, { [HONOLULU]: 'own' }),
    )
    expect([lineId.value, why.value]).toEqual(['own', 'used last'])
    phoneId.value = 'p2'
    await settled()
    expect(lineId.value).toBe('halifax')
    expect(lines.value.find(({ id }) => id === 'own')).toMatchObject({ disabled: true, note: 'texts within US only' })
  })

  it('stays the line that somebody has chosen, whatever is read anew, as long as it can be used', async () => {
    const now = shallowRef(start(both))
    const { lineId } = useRecordTarget(() => record([phone('p1', HONOLULU)]), () => now.value)
    lineId.value = 'portland'
    now.value = start([...both], { [HONOLULU]: 'own' })
    await settled()
    expect(lineId.value).toBe('portland')
    now.value = start(both.map(one => one.id === 'portland' ? { ...one, active: false } : one))
    await settled()
    expect(lineId.value).toBe('hilo')
  })

  it('is nowhere without a number or a line', () => {
    expect(useRecordTarget(() => record([]), () => start(both)).target.value).toBeNull()
    const { target, lineId } = useRecordTarget(
      () => record([phone('p1', HONOLULU)]),
      () => start([line('old', '+18085550104', { active: false })]),
    )
    expect([target.value, lineId.value]).toEqual([null, null])
  })

  it('moves on when the number that was chosen opts out', async () => {
    const now = shallowRef(record([phone('p1', HONOLULU), phone('p2', '+18085550143')]))
    const { phoneId } = useRecordTarget(() => now.value, () => start(both))
    now.value = record([phone('p1', HONOLULU, { consent: { texts: 'refused' } as never }), phone('p2', '+18085550143')])
    await settled()
    expect(phoneId.value).toBe('p2')
    now.value = record([phone('p1', HONOLULU, { consent: { texts: 'refused' } as never })])
    await settled()
    expect(phoneId.value).toBeNull()
  })

  it('is a person of a deal or a company, by their first name and with their templates', () => {
    const person = { id: 'iris', name: 'Iris Holm', firstName: 'Iris' }
    const { name, templatesAt, target } = useRecordTarget(
      () => record([phone('p1', HONOLULU, { person } as never)], { id: 'deal', module: 'deal', name: 'Two bikes', firstName: null }),
      () => start(both),
    )
    expect([name.value, templatesAt.value, target.value?.recordId]).toEqual(['Iris', '/api/records/iris/templates', 'deal'])
    const firm = useRecordTarget(
      () => record([phone('p1', HONOLULU)], { id: 'firm', module: 'company', name: 'Holm & Daughters', firstName: null }),
      () => start(both),
    )
    expect([firm.name.value, firm.templatesAt.value, firm.target.value?.recordId]).toEqual(['Holm & Daughters', '/api/records/firm/templates', null])
  })
})

import '../support/app'
import { newCall, withEvent, type CallEvent } from '~~/core/call/facts'
import { zoneRules } from '~~/core/hours/zones'
import type { TimelineCall } from '~~/shared/calling'
import type { TimelineEntry } from '~~/shared/timeline'
import { sayCall, sayDuration, sayTransfer, talked } from '~/words/calls'
import { many } from '~/words/count'
import { sayEntry } from '~/words/entries'
import { sayCounts, sayRow } from '~/words/imports'
import { sayElsewhere, nextWorkingMorning } from '~/words/moments'
import { sayPause } from '~/words/rounds'
import { sayShare } from '~/words/shares'
import { ago, clock, dayName, shortDay, span } from '~/words/time'

const NOW = Date.parse('2026-11-25T18:00:00Z')
const at = (seconds: number) => NOW + seconds * 1_000
const call = (...events: CallEvent[]) => events.reduce(withEvent, newCall(NOW))
const portland = zoneRules('America/Los_Angeles')!
const honolulu = zoneRules('Pacific/Honolulu')!

describe('how a call stands, in words', () => {
  const STANDS = [
    [call(), 'out', 'dialling'],
    [call({ kind: 'own-ringing', at: at(1) }), 'out', 'your own telephone rings: pick it up'],
    [call({ kind: 'ringing', at: at(1) }), 'out', 'it rings'],
    [call({ kind: 'ringing', at: at(1) }), 'in', 'calls you'],
    [call({ kind: 'answered', at: at(0), by: 'person' }), 'out', '1:05'],
    [call({ kind: 'answered', at: at(0), by: 'machine' }), 'out', 'a mailbox, 1:05'],
    [call({ kind: 'answered', at: at(0), by: 'machine' }), 'in', 'leaves a message'],
    [call({ kind: 'answered', at: at(0), by: 'person' }, { kind: 'switched', what: 'hold', on: true, at: at(2) }), 'out', 'on hold, 1:05'],
    [call({ kind: 'answered', at: at(0), by: 'machine' }, { kind: 'leaving', at: at(2) }), 'out', 'your message is being left'],
    [
      call({ kind: 'answered', at: at(0), by: 'person' }, { kind: 'ended', at: at(61), why: 'hung-up', side: 'us' }),
      'out',
      'talked 1 min 1 s',
    ],
    [
      call({ kind: 'answered', at: at(0), by: 'machine' }, { kind: 'ended', at: at(5), why: 'hung-up', side: 'us' }),
      'out',
      'a mailbox answered',
    ],
    [
      call(
        { kind: 'answered', at: at(0), by: 'machine' },
        { kind: 'leaving', at: at(2) },
        { kind: 'left', at: at(8) },
        { kind: 'ended', at: at(8), why: 'hung-up', side: 'us' },
      ),
      'out',
      'a message was left',
    ],
    [
      call(
        { kind: 'answered', at: at(0), by: 'machine' },
        { kind: 'leaving', at: at(2) },
        { kind: 'ended', at: at(4), why: 'hung-up', side: 'them' },
      ),
      'out',
      'a message was begun, and cut off',
    ],
    [call({ kind: 'ended', at: at(4), why: 'busy', side: 'them' }), 'out', 'busy'],
    [call({ kind: 'ended', at: at(4), why: 'own-no-answer', side: 'us' }), 'out', 'your own telephone was not picked up'],
    [call({ kind: 'ended', at: at(4), why: 'hung-up', side: 'them' }), 'in', 'missed'],
  ] as const
  it.each(STANDS.map(([facts, direction, words]) => ({ facts, direction, words })))(
    '$words ($direction)',
    ({ facts, direction, words }) => {
      expect(sayCall(facts, direction, at(65))).toBe(words)
    },
  )

  it.each([
    [0, '0:00', '0 s'],
    [59_400, '0:59', '59 s'],
    [187_000, '3:07', '3 min 7 s'],
    [3_727_000, '1:02:07', '62 min 7 s'],
  ])('lasts %i ms', (ms, clockLike, spoken) => {
    expect([sayDuration(ms), talked(ms)]).toEqual([clockLike, spoken])
  })

  it('says who hands it to whom, and who waits', () => {
    const transfer = { id: 'h', way: 'attended' as const, from: { id: 'a', firstName: 'Ada' }, to: { id: 'm', firstName: 'Mika' } }
    expect([
      sayTransfer({ ...transfer, state: 'asked', toMe: true }, 'Iris'),
      sayTransfer({ ...transfer, way: 'blind', state: 'asked', toMe: true }, 'Iris'),
      sayTransfer({ ...transfer, state: 'asked', toMe: false }, 'Iris'),
      sayTransfer({ ...transfer, state: 'together', toMe: true }, 'Iris'),
      sayTransfer({ ...transfer, state: 'together', toMe: false }, 'Iris'),
    ]).toEqual([
      'Ada hands it to you, after a word',
      'Ada hands it to you',
      'rings with Mika, Iris waits',
      'you and Ada talk, Iris waits',
      'you and Mika talk, Iris waits',
    ])
  })
})

describe('an entry of the timeline, in words', () => {
  const entry = (values: Partial<TimelineEntry>): TimelineEntry => ({
    id: 'e',
    at: NOW,
    kind: 'note',
    words: null,
    data: {},
    colleague: { id: 'a', firstName: 'Ada', name: 'Ada Lund' },
    via: null,
    byHand: false,
    meantFor: null,
    message: null,
    call: null,
    ...values,
  })
  const made = (values: Partial<TimelineCall>): TimelineCall => ({
    id: 'c',
    remote: '+18085550142',
    line: 'Portland line',
    colleagueId: 'a',
    facts: call({ kind: 'answered', at: at(0), by: 'person' }, { kind: 'ended', at: at(61), why: 'hung-up', side: 'us' }),
    disposition: null,
    rating: null,
    transfers: [],
    spoken: null,
    effects: [],
    recording: null,
    ...values,
  })

  it('of a call says in which round, how long, to whom it was handed and how it went, and opens to what that did', () => {
    const said = sayEntry(
      entry({
        kind: 'call-out',
        data: { round: 'Spring' },
        call: made({
          disposition: { name: 'Visit wanted', colour: 'good' },
          rating: 4,
          transfers: [{ from: 'Ada', to: 'Mika', at: at(9) }],
          effects: [
            { position: 0, words: 'Tag visit', state: 'done', reason: null },
            { position: 1, words: 'Text “Hi”', state: 'failed', reason: 'It has opted out.' },
            { position: 2, words: 'Task “Go”', state: 'left-out', reason: null },
            { position: 3, words: 'Stage to Trial', state: 'taken-back', reason: null },
            { position: 4, words: 'Text “Yo”', state: 'stays', reason: 'It has left.' },
          ],
        }),
      }),
      'Iris',
    )
    expect([said.who, said.what, said.went]).toEqual([
      'Ada',
      'called Iris in the round “Spring”, talked 1 min 1 s, handed to Mika',
      { name: 'Visit wanted', colour: 'good' },
    ])
    expect(said.more).toEqual([
      'Tag visit',
      'Text “Hi”: did not work. It has opted out.',
      'Task “Go”: left out',
      'Stage to Trial: taken back',
      'Text “Yo”: could not be taken back. It has left.',
      'Rated 4 of 5',
    ])
  })

  it('of a message that was left says what was said, once it was', () => {
    const spoken = { name: 'Short hello', words: 'Hello, this is Ada.' }
    const facts = call(
      { kind: 'answered', at: at(0), by: 'machine' },
      { kind: 'leaving', at: at(2) },
      { kind: 'left', at: at(8) },
      { kind: 'ended', at: at(8), why: 'hung-up', side: 'us' },
    )
    expect(sayEntry(entry({ kind: 'call-out', call: made({ facts, spoken }) }), 'Iris')).toMatchObject({
      what: 'called Iris, a message was left',
      more: ['“Short hello”: Hello, this is Ada.'],
    })
    expect(sayEntry(entry({ kind: 'call-out', call: made({ spoken }) }), 'Iris').more).toEqual([])
  })

  const ENTRIES = [
    [{ kind: 'call-in', call: made({}) }, 'Iris', 'called, talked 1 min 1 s'],
    [
      { kind: 'call-in', call: made({ recording: { id: 'r', of: 'message', ms: 4_000, peaks: [], had: null, marks: [] } }) },
      'Iris',
      'called, left a message',
    ],
    [{ kind: 'call-out', data: { outcome: 'answered', seconds: 61 } }, 'Ada', 'called, 1 min 1 s'],
    [{ kind: 'call-out', data: { outcome: 'voicemail' } }, 'Ada', 'called, voicemail left'],
    [{ kind: 'call-in', data: { seconds: 5 }, colleague: null }, 'Iris', 'called, nobody answered, 5 s'],
    [{ kind: 'note' }, 'Ada', 'noted'],
    [{ kind: 'note', data: { quote: 'Thursday' } }, 'Ada', 'noted on “Thursday”'],
    [{ kind: 'record-made' }, 'Ada', 'made this record'],
    [{ kind: 'record-made', data: { importId: 'i' } }, 'Ada', 'brought this record in, from a file'],
    [{ kind: 'stage-changed', data: { from: 'New', to: 'Trial' } }, 'Ada', 'moved the stage from New to Trial'],
    [
      { kind: 'stage-changed', data: { from: null, to: 'Trial', bulkId: 'b' } },
      'Ada',
      'moved the stage from none to Trial, together with others',
    ],
    [
      { kind: 'stage-changed', data: { from: 'New', to: 'Trial', bulkId: 'b', takenBack: true } },
      'Ada',
      'moved the stage from New to Trial, taking back a change of many',
    ],
    [{ kind: 'put-on', data: { person: 'Iris', on: 'Two bikes' } }, 'Ada', 'put Iris on Two bikes'],
    [{ kind: 'taken-off', data: { person: 'Iris', on: 'Two bikes' } }, 'Ada', 'took Iris off Two bikes'],
    [
      { kind: 'moved-on', data: { person: 'Iris', from: null, to: 'Trial shift', on: 'Mechanic' } },
      'Ada',
      'moved Iris from none to Trial shift for Mechanic',
    ],
    [{ kind: 'fields-changed', data: { changes: [{ label: 'City', from: null, to: 'Hilo' }] } }, 'Ada', 'changed city'],
    [
      { kind: 'consent-changed', data: { kind: 'refused', covers: 'calls', how: 'by-hand' } },
      'Iris',
      'opted out of calls, noted by Ada',
    ],
    [
      { kind: 'consent-changed', data: { kind: 'refused', covers: 'texts', how: 'text' }, colleague: null },
      'Iris',
      'opted out of texts by a text',
    ],
    [
      { kind: 'consent-changed', data: { kind: 'agreed', covers: 'both', how: 'form' }, colleague: null },
      'Iris',
      'agreed to texts and calls on a form',
    ],
    [
      { kind: 'task-made', data: { kind: 'task', wallTime: '2026-12-01T09:00', zone: 'Pacific/Honolulu' }, words: 'Write' },
      'Ada',
      'made a task: “Write”, 9:00 Honolulu time on Tue 1 Dec',
    ],
    [
      { kind: 'task-made', data: { kind: 'call-back', wallTime: '2026-12-01T09:00', zone: 'Pacific/Honolulu' } },
      'Ada',
      'will call back, 9:00 Honolulu time on Tue 1 Dec',
    ],
    [{ kind: 'task-done', data: { kind: 'task' }, words: 'Write' }, 'Ada', 'did “Write”'],
    [{ kind: 'task-done', data: { kind: 'call-back' } }, 'Ada', 'ticked the call-back off'],
    [{ kind: 'task-again', data: { kind: 'task' }, words: 'Write' }, 'Ada', 'has “Write” to do again'],
    [{ kind: 'task-withdrawn', data: { kind: 'call-back' } }, 'Ada', 'took the call-back away'],
  ] as const
  it.each(ENTRIES.map(([values, who, what]) => ({ values, who, what })))('$who $what', ({ values, who, what }) => {
    expect(sayEntry(entry(values as Partial<TimelineEntry>), 'Iris')).toMatchObject({ who, what })
  })
})

describe('times, in words', () => {
  it('are those on the wall of a zone', () => {
    expect([clock(NOW, portland), clock(NOW, honolulu), shortDay(NOW, portland)]).toEqual(['10:00', '8:00', '25 Nov'])
    expect([
      dayName(NOW, portland, NOW),
      dayName(NOW - 86_400_000, portland, NOW),
      dayName(Date.parse('2026-11-02T18:00:00Z'), portland, NOW),
      dayName(Date.parse('2025-11-02T18:00:00Z'), portland, NOW),
    ]).toEqual(['Today', 'Yesterday', 'Monday 2 November', 'Sunday 2 November 2025'])
    // late in Portland the day in Halifax is another one already
    expect(dayName(Date.parse('2026-11-26T05:00:00Z'), zoneRules('America/Halifax')!, NOW)).toBe('Thursday 26 November')
  })

  it.each([
    [20_000, 'a moment'],
    [90_000, '2 min'],
    [3_600_000, '1 h'],
    [47.4 * 3_600_000, '47 h'],
    [72 * 3_600_000, '3 days'],
    [-5_000, 'a moment'],
  ])('%i ms is %s', (ms, words) => {
    expect([span(ms), ago(NOW - ms, NOW)]).toEqual([words, `${words} ago`])
  })

  it('say a moment of one place by the clock of another, where they differ', () => {
    expect(sayElsewhere({ wallTime: '2026-12-01T09:00', zone: 'Pacific/Honolulu' }, [honolulu, portland], portland)).toBe(
      '11:00 Los Angeles time',
    )
    expect([
      sayElsewhere({ wallTime: '2026-12-01T09:00', zone: 'Pacific/Honolulu' }, [honolulu], honolulu),
      sayElsewhere({ wallTime: 'soon', zone: 'Pacific/Honolulu' }, [honolulu], portland),
    ]).toEqual([null, null])
    expect(nextWorkingMorning(honolulu, NOW)).toBe('2026-11-26T09:00')
    // on a Friday there is no work on the next day
    expect(nextWorkingMorning(honolulu, Date.parse('2026-11-27T20:00:00Z'))).toBe('2026-11-30T09:00')
  })
})

describe('counts, in words', () => {
  it('agree with their number', () => {
    expect([many(1, 'lead', 'leads'), many(0, 'lead', 'leads'), many(1_204, 'lead', 'leads')]).toEqual(['1 lead', '0 leads', '1,204 leads'])
    expect([sayPause(null), sayPause(0), sayPause(15)]).toEqual(['when D is pressed', 'at once', 'by itself after 15 seconds'])
  })

  it('of a file leave out what there is none of', () => {
    expect(
      sayCounts({ made: 280, joined: 20, leftOut: 0, thereAlready: 0, refused: 1_007, keptBack: 0 } as Parameters<typeof sayCounts>[0]),
    ).toBe('280 new, 20 added to who was there, 1,007 refused')
    expect([
      sayRow({ fate: { kind: 'joined', to: 'r', by: 'number' }, with: 'Iris Holm', leftOut: [] }),
      sayRow({ fate: { kind: 'refused', reasons: ['No name.', 'No number.'] }, with: null, leftOut: [] }),
      sayRow({ fate: { kind: 'new' }, with: null, leftOut: [{ heading: 'Mail', text: 'nowhere', reason: 'This is not a mail address.' }] }),
    ] as string[]).toEqual(['is added to Iris Holm, the same number', 'No name. No number.',
      'becomes a new record. Mail “nowhere” goes into its note: This is not a mail address.'])
  })

  it('of a share come with how sure it is', () => {
    expect([sayShare(20, 100), sayShare(0, 0)]).toEqual(['20 % (13 to 29)', 'not yet'])
  })
})

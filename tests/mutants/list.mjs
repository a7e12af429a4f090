// What must not be changed without a test that fails: each a small change to one rule, and the tests that guard it.

/** @typedef {{ file: string, what: string, from: string, to: string, tests: string[] }} Mutant */

const server = (...names) => names.map(name => `tests/unit/server/${name}.spec.ts`)
const core = (...names) => names.map(name => `tests/unit/core/${name}.spec.ts`)

/** @type {Mutant[]} */
export const MUTANTS = [
  // the gate
  { file: 'core/message/gate.ts', what: 'an opt-out is asked about last', from: 'if (facts.optedOut) return held(\'opted-out\')', to: '', tests: server('gate') },
  { file: 'core/message/gate.ts', what: 'texting may be off', from: 'if (!facts.textingOn)', to: 'if (false)', tests: server('gate') },
  { file: 'core/message/gate.ts', what: 'a line may be closed', from: 'if (!facts.lineOpen)', to: 'if (false)', tests: server('gate') },
  { file: 'core/message/gate.ts', what: 'late texts leave', from: 'if (facts.now - facts.meantFor > ', to: 'if (facts.now - facts.meantFor < -', tests: server('gate') },
  { file: 'core/message/gate.ts', what: 'whoever was heard at any time is answered at night', from: 'now - lastHeardAt <= ANSWER_WELCOME_FOR', to: 'true', tests: [...server('gate'), ...core('message')] },
  { file: 'server/texting/gate.ts', what: 'every number is usable', from: 'numberUsable: text.numberUsable', to: 'numberUsable: true', tests: server('gate') },
  { file: 'server/texting/gate.ts', what: 'nobody has opted out', from: 'optedOut: number.texts === \'refused\'', to: 'optedOut: false', tests: server('gate') },
  { file: 'server/texting/gate.ts', what: 'a number found wrong counts for its own record alone', from: 'and not exists (', to: 'and not not exists (', tests: server('gate') },
  { file: 'core/hours/reachable.ts', what: 'one zone of several is enough', from: 'zones.every(', to: 'zones.some(', tests: core('hours') },

  // the ledger
  { file: 'core/consent/ledger.ts', what: 'what was annulled counts', from: '.filter(({ id }) => !annulled.has(id))', to: '', tests: core('ledger') },
  { file: 'core/consent/ledger.ts', what: 'the oldest word counts', from: 'a.at - b.at || a.sequence - b.sequence', to: 'b.at - a.at || b.sequence - a.sequence', tests: core('ledger') },
  { file: 'server/effects/no-calls.ts', what: '"no calls" holds for the first number alone', from: 'for (const e164 of new Set([...await numbersOf(record.id), ...remote ? [remote] : []]))', to: 'for (const e164 of [...await numbersOf(record.id)].slice(0, 1))', tests: server('calling') },
  { file: 'server/effects/no-calls.ts', what: 'taking "no calls" back takes nothing back', from: 'await annulConsent(id, asker.id, now)', to: 'void id', tests: server('calling') },
  { file: 'server/consent/ledger.ts', what: 'taking a refusal back invents agreement', from: 'kind: \'annulled\', annulsId: entryId', to: 'kind: \'agreed\'', tests: server('calling') },

  // the outbox
  { file: 'server/jobs/outbox.ts', what: 'an older attempt settles', from: 'and ${job.attempt} = ${claimed.attempt}`', to: '`', tests: server('fences') },
  { file: 'server/texting/hand-over.ts', what: 'an older attempt writes its answer', from: 'and j.attempt = i.attempt', to: '', tests: server('fences') },
  { file: 'server/jobs/outbox.ts', what: 'more than one of a lane is in flight', from: 'where e.lane = j.lane and e.done_at is null and e.dead_at is null\n', to: 'where e.lane = j.lane and e.done_at is null and e.dead_at is null and e.lease_until is null\n', tests: server('fences') },
  { file: 'server/jobs/outbox.ts', what: 'a lease protects nothing', from: 'and (j.lease_until is null or j.lease_until <= ${at(now)})', to: '', tests: server('fences') },
  { file: 'server/sweep.ts', what: 'jobs that wait are swept', from: 'since: sql`done_at`', to: 'since: sql`due_at`', tests: server('sweep') },

  // carriers
  { file: 'server/texting/receive.ts', what: 'a text is taken from any carrier', from: 'if (!to || to.carrier !== carrier)', to: 'if (!to)', tests: server('carriers') },
  { file: 'server/texting/events.ts', what: 'one carrier speaks for another', from: 'where m.id = i.key and coalesce(m.carrier, l.carrier) = i.carrier', to: 'where m.id = i.key', tests: server('carriers') },
  { file: 'server/texting/events.ts', what: 'a name of a text is the same with every carrier', from: 'where m.carrier = i.carrier and m.carrier_ref = i.ref', to: 'where m.carrier_ref = i.ref', tests: server('carriers') },
  { file: 'server/texting/hand-over.ts', what: 'another carrier is asked after a lost answer', from: '(uncertain && text.askedCarrier) || text.carrier', to: 'text.carrier', tests: server('carriers') },
  { file: 'server/carriers/practice.ts', what: 'the practice carrier’s signature is not checked', from: 'isSigned: signatureCheck(webhookSecret)', to: 'isSigned: () => true', tests: server('fences') },
  { file: 'server/calling/practice-exchange.ts', what: 'the practice exchange’s signature is not checked', from: 'isSigned: signatureCheck(webhookSecret)', to: 'isSigned: () => true', tests: server('fences') },

  // who sees what
  { file: 'server/texting/pictures.ts', what: 'pictures are open to all', from: 'and ${mayReadEntry(asker, sql`m.activity_id`)}', to: '', tests: server('fences') },
  { file: 'server/live/notices.ts', what: 'everybody is told', from: 'if (about.some(thing => can(asker, permission, thing)))', to: 'if (about)', tests: server('fences') },
  { file: 'shared/permissions.ts', what: 'a team is everybody', from: 'asker.teamIds.includes(thing.teamId)', to: 'true', tests: server('permissions', 'fences') },
  { file: 'server/beginning/begin.ts', what: 'any key makes the firm', from: 'if (!known) throw', to: 'if (false) throw', tests: server('begin') },

  // effects
  { file: 'server/effects/stage.ts', what: 'taking back moves what somebody has moved on', from: '{ stageId: from, from: to }', to: '{ stageId: from, from: null }', tests: server('calling') },
  { file: 'server/records/wrong-number.ts', what: 'taking back gives a number back that was typed anew', from: ', eq(phone.unusable, \'not-theirs\')))', to: '))', tests: server('calling') },
  { file: 'server/effects/happen.ts', what: 'what is not said yet does the rest', from: 'if (Object.keys(unsaid).length > 0) throw badInput(unsaid)', to: '', tests: server('calling') },
]

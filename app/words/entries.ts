import { leftMessage } from '~~/core/call/facts'
import { showPhone } from '~~/core/phone/show'
import type { TimelineCall } from '~~/shared/calling'
import { sayCall } from './calls'
import { CONSENT_HOW, COVERED } from './consent'
import { many } from './count'
import { sayEffectDone } from './effects'
import { sayMoment } from './moments'
import { fieldWords } from './time'
import type { TimelineEntry } from '~~/shared/timeline'

interface Change { label: string, from: string | null, to: string | null }

/** What a single-line entry says: who did it in bold, what, and what it opens to. */
export interface EntryWords {
  who: string
  what: string
  more: string[]
  /** Over which line it went, and with which number. */
  over?: string
  /** How a call went, in the colour of its key. */
  went?: TimelineCall['disposition']
}

const coveredBy = (covers: unknown) => COVERED[covers as keyof typeof COVERED] ?? COVERED.texts

/** Says an entry in a line: of a text, its words. */
export function sayEntry(entry: TimelineEntry, person: string): EntryWords {
  const who = entry.colleague?.firstName ?? person
  const { data } = entry
  switch (entry.kind) {
    case 'note':
      return { who, what: data.quote ? `noted on “${String(data.quote)}”` : 'noted', more: [] }
    case 'record-made':
      return { who, what: data.importId ? 'brought this record in, from a file' : 'made this record', more: [] }
    case 'stage-changed':
      return { who, what: `moved the stage from ${data.from ?? 'none'} to ${data.to ?? 'none'}${together(data)}`, more: [] }
    case 'group-changed':
      return { who, what: `${data.to ? `put ${person} into the group ${String(data.to)}` : `took ${person} out of the group ${String(data.from)}`}${together(data)}`, more: [] }
    case 'put-on':
      return { who, what: `put ${data.person} on ${data.on}`, more: [] }
    case 'taken-off':
      return { who, what: `took ${data.person} off ${data.on}`, more: [] }
    case 'moved-on':
      return { who, what: `moved ${data.person} from ${data.from ?? 'none'} to ${data.to} for ${data.on}`, more: [] }
    case 'fields-changed':
      return { who, ...sayChanges((data.changes as Change[] | undefined) ?? [], together(data)) }
    case 'consent-changed':
      if (data.kind === 'annulled')
        return { who: entry.colleague ? who : person, what: `took back what was noted about ${coveredBy(data.covers)}`, more: quoted(entry.words) }
      return {
        // it is their wish, whoever wrote it down
        who: person,
        what: [
          `${data.kind === 'refused' ? 'opted out of' : 'agreed to'} ${coveredBy(data.covers)}`,
          entry.colleague ? `, noted by ${who}` : ` ${CONSENT_HOW[data.how as keyof typeof CONSENT_HOW] ?? ''}`.trimEnd(),
        ].join(''),
        more: quoted(entry.words),
      }
    case 'task-made':
      return {
        who,
        what: `${data.kind === 'call-back' ? 'will call back' : `made a task: “${entry.words}”`}, ${sayMoment({ wallTime: String(data.wallTime), zone: String(data.zone) })}`,
        more: [],
      }
    case 'task-done':
      return { who, what: data.kind === 'call-back' ? 'ticked the call-back off' : `did “${entry.words}”`, more: [] }
    case 'task-again':
      return { who, what: `has “${entry.words}” to do again`, more: [] }
    case 'task-changed':
      return {
        who,
        what: `${data.to ? `gave ${data.to} ${data.kind === 'call-back' ? 'the call-back' : `the task “${entry.words}”`}` : data.kind === 'call-back' ? 'moved the call-back' : `changed the task to “${entry.words}”`}, ${sayMoment({ wallTime: String(data.wallTime), zone: String(data.zone) })}`,
        more: [],
      }
    case 'task-withdrawn':
      return { who, what: data.kind === 'call-back' ? 'took the call-back away' : `took “${entry.words}” away`, more: [] }
    case 'bulk-sent':
      return { who, what: `sent the bulk text “${entry.words}” to ${many(Number(data.people ?? 1), 'person', 'people')} here`, more: [] }
    case 'nothing-needed':
      return { who, what: 'said that no answer is needed', more: [] }
    case 'put-back':
      return {
        who,
        what: `put the conversation back${data.wallTime ? ` until ${sayMoment({ wallTime: String(data.wallTime), zone: String(data.zone) })}` : ', to be answered'}`,
        more: quoted(entry.words),
      }
    case 'assigned':
      return {
        who: entry.colleague ? who : 'The order of the line',
        what: data.to && data.toId === entry.colleague?.id
          ? 'took the conversation'
          : data.to ? `handed the conversation to ${String(data.to)}` : 'gave the conversation back to everybody who answers the line',
        more: quoted(entry.words),
      }
    case 'call-in':
      return entry.call
        ? sayOwnCall(entry, who, person)
        : {
            who: person,
            what: `called, ${entry.colleague ? `${who} answered` : 'nobody answered'}, ${talk(Number(data.seconds))}`,
            more: [],
          }
    case 'call-out':
      return entry.call
        ? sayOwnCall(entry, who, person)
        : {
            who,
            what: `called, ${data.outcome === 'answered' ? talk(Number(data.seconds)) : data.outcome === 'voicemail' ? 'voicemail left' : 'no answer'}`,
            more: [],
          }
    case 'text-in':
    case 'text-out':
      return { who, what: entry.words ?? '', more: [] }
  }
}

/** A call made with Plauder: how it stands or ended, how it went, and what that set off. */
function sayOwnCall({ kind, call, data }: TimelineEntry, who: string, person: string): EntryWords {
  const { facts, disposition, effects, recording, transfers, spoken, rating, remote, line } = call!
  const how = recording?.of === 'message' ? 'left a message' : sayCall(facts, kind === 'call-in' ? 'in' : 'out', Date.now())
  return {
    who: kind === 'call-in' ? person : who,
    what: `${kind === 'call-in' ? 'called' : `called ${person}`}${data.round ? ` in the round “${String(data.round)}”` : ''}, ${how}${transfers.map(({ to }) => `, handed to ${to}`).join('')}`,
    went: disposition,
    over: kind === 'call-in' ? `from ${showPhone(remote, true)} to ${line}` : `from ${line} to ${showPhone(remote, true)}`,
    more: [
      ...(spoken && leftMessage(facts) ? [`“${spoken.name}”: ${spoken.words}`] : []),
      ...effects.map(sayEffectDone),
      ...(rating === null ? [] : [`Rated ${rating} of 5`]),
    ],
  }
}

/** How a change of many at once, or one that a file made, came to be. */
function together({ bulkId, importId, takenBack }: Record<string, unknown>): string {
  if (importId) return takenBack ? ', taking back a file' : ', from a file'
  return takenBack ? ', taking back a change of many' : bulkId ? ', together with others' : ''
}

const sayChanges = (changes: Change[], how: string) => ({
  what: `changed ${changes.map(change => change.label.toLowerCase()).join(', ')}${how}`,
  more: changes.map(change => `${change.label}: ${fieldWords(change.from)} → ${fieldWords(change.to)}`),
})

function talk(seconds: number): string {
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`
}

const quoted = (words: string | null | undefined) => words ? [`“${words}”`] : []

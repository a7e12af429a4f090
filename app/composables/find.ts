import { readRef, showRef } from '~~/core/message/ref'
import { sideOf } from '~~/core/timeline/kinds'
import { showPhone } from '~~/core/phone/show'
import type { FoundRef, Said, Stranger } from '~~/shared/find'
import { MODULE_FACTS } from '~~/shared/modules'
import type { RecordRow } from '~~/shared/record'
import { api } from '~/composables/api'
import { commandsWith, type Command } from '~/composables/commands'
import { newestOnly } from '~/composables/newest'
import { useNow } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { useShelf } from '~/stores/shelf'
import { UNUSABLE_WORDS } from '~/words/phone'
import { ago } from '~/words/time'

/** With fewer characters everybody would be found. */
export const LEAST = 2
const NOTHING = 'Nobody and nothing by that name, number or word.'
const LIKE_A_NUMBER = /^\+?[\d\s().-]{7,}$/

export interface Found { key: string, name: string, about: string, act: () => void }
export interface Group { label: string, items: Found[] }

const isEnough = (typed: string) => typed.length >= LEAST && typed.trim() !== ''

/**
 * Finding while one types: records, things to do, what was said and noted, a text by its ref, a number on no record.
 *
 * @param go gets the first that is found where Enter was pressed before it was there
 */
export function useFind(go: (found: Found) => void) {
  const now = useNow()
  const calls = useCalls()
  const groups = shallowRef<Group[]>([])
  /** What stands there where nothing is found. */
  const empty = ref(NOTHING)
  const begin = newestOnly()
  let looking = false
  /** Typed while something else was being looked for. */
  let lookNext: string | null = null
  /** Asked for with the key itself: the list that drops down says so only when it has drawn itself anew. */
  let early: { typed: string, records: Promise<RecordRow[]> } | null = null
  /** What the groups are for, and for what Enter was pressed before they were there. */
  let shownFor = ''
  let enterFor: string | null = null

  const ask = (words: string) => api<RecordRow[]>('/api/find', { query: { words } })

  function askEarly(typed: string): void {
    if (looking || !isEnough(typed)) return
    early = { typed, records: ask(typed) }
    early.records.catch(() => undefined)
  }

  /** Looks at once, and for what is typed meanwhile as soon as that is back: never two at a time, never an idle wait. */
  async function find(typed: string): Promise<void> {
    lookNext = typed
    if (looking) return
    looking = true
    while (lookNext !== null) {
      const next = lookNext
      lookNext = null
      await look(next)
    }
    looking = false
  }

  /** People come as soon as they are found; what was said may come a moment later, and holds up nothing. */
  async function look(typed: string): Promise<void> {
    const isNewest = begin()
    const commands = commandsWith(typed).map(foundCommand)
    empty.value = NOTHING
    try {
      const reference = await byRef(typed)
      const asking = early?.typed === typed ? early.records : ask(typed)
      early = null
      const records = (await asking).map(foundRecord)
      // asked for only now: the database would look through what was said first, and people would wait for it
      const later = api<Said[]>('/api/find/said', { query: { words: typed } })
      if (records.length === 0 && reference.length === 0) commands.unshift(...await strangerWith(typed))
      const something = records.length + commands.length + reference.length > 0
      shownFor = typed.trim()
      if (something) show(records, commands, reference)
      void later.then((hits) => {
        if (isNewest() && (hits.length > 0 || !something))
          show(records, commands, [...reference, ...hits.map(hit => foundSaid(hit, typed))])
      }, () => undefined)
    }
    catch (error) {
      empty.value = error instanceof Error ? error.message : ''
      show([], commands)
    }
  }

  /**
   * Set in one go: the list that drops down looks for its first line when it is set, once for what was typed.
   * So nothing found for half of a word, while the whole of it is being looked for, is not worth showing: it would use that up.
   */
  function show(records: Found[], commands: Found[], said: Found[] = []): void {
    const found = [
      { label: 'Records', items: records },
      { label: 'To do', items: commands },
      { label: 'Said and noted', items: said },
    ].filter(({ items }) => items.length > 0)
    if (found.length === 0 && lookNext !== null) return
    groups.value = found
    goIfWanted()
  }

  /**
   * Whoever types quickly and presses Enter goes to what is found, not to what was found for half of the word.
   *
   * @returns whether that is still to come
   */
  function enter(typed: string): boolean {
    const wanted = typed.trim()
    if (wanted.length < LEAST || wanted === shownFor) return false
    enterFor = wanted
    return true
  }

  function goIfWanted(): void {
    const first = groups.value[0]?.items[0]
    if (enterFor === null || enterFor !== shownFor || !first) return
    enterFor = null
    go(first)
  }

  /** Somebody went to what was found. */
  const done = () => shownFor = ''

  function foundSaid({ id, recordName, recordId, words, at, kind }: Said, typed: string): Found {
    const who = sideOf(kind) === 'theirs' ? recordName : kind === 'note' ? `Note on ${recordName}` : `To ${recordName}`
    return { key: id, name: who, about: `${ago(at, now.value)}: ${around(words, typed)}`, act: open(recordId, id) }
  }

  /** A text by the reference that somebody has read out; a mistyped one is called so. */
  async function byRef(typed: string): Promise<Found[]> {
    const reading = readRef(typed)
    if (!reading.ok && reading.reason === 'no-ref') return []
    const found = await api<FoundRef>('/api/find/ref', { query: { typed } })
    if (found.kind === 'found') return [{ ...foundSaid(found.said, ''), name: `${showRef(found.ref)}, ${found.said.recordName}` }]
    if (found.kind === 'draft') return [foundDraft(found)]
    empty.value
      = found.kind === 'unknown'
        ? `No text that you may see has the ref ${showRef(found.ref)}.`
        : found.kind === 'mistyped'
          ? 'This ref is mistyped: its check character does not fit. Ask for it once more.'
          : NOTHING
    return []
  }

  /** A number that is on no record can be texted and called all the same. */
  async function strangerWith(typed: string): Promise<Found[]> {
    if (!LIKE_A_NUMBER.test(typed.trim())) return []
    const found = await api<Stranger>('/api/find/number', { query: { typed } })
    const call: Found = {
      key: `call ${typed}`,
      name: `Call ${typed}`,
      about: 'on no record',
      act: () => void calls.dial({ number: typed, name: typed }),
    }
    if (found.kind === 'unusable') {
      empty.value
        = found.reason === 'no-line' ? 'No line of yours texts the country of this number.' : UNUSABLE_WORDS[found.reason].split('. ')[0]!
      return found.reason === 'no-line' ? [call] : []
    }
    return [
      {
        key: found.e164,
        name: `Text ${showPhone(found.e164)}`,
        about: [found.last ? `on no record, ${found.last.how === 'call' ? 'a call' : 'a text'} ${ago(found.last.at, Date.now())}` : 'on no record', `from ${found.line}`].join(', '),
        act: () => void write(found.e164),
      },
      { ...call, name: `Call ${showPhone(found.e164)}` },
    ]
  }

  return { groups, empty, askEarly, find, enter, done }
}

const open = (recordId: string, entry?: string) => () => void navigateTo({ path: `/record/${recordId}`, query: { entry } })

function foundRecord({ id, name, module, company, phone, mail }: RecordRow): Found {
  const number = phone?.startsWith('+') ? showPhone(phone) : phone
  return { key: id, name, about: [MODULE_FACTS[module].one, company?.name, number ?? mail].filter(Boolean).join(', '), act: open(id) }
}

function foundDraft({ ref, text, recordId, conversationId }: FoundRef & { kind: 'draft' }): Found {
  return {
    key: `draft ${ref}`,
    name: `${showRef(ref)}, a draft of yours`,
    about: around(text, ''),
    act: () => recordId ? open(recordId)() : void (useShelf().openId = conversationId),
  }
}

const foundCommand = ({ what, shown, act }: Command): Found => ({ key: what, name: what, about: shown ? `key ${shown}` : '', act })

/** The piece of a text in which the first of the words stands. */
function around(words: string, typed: string): string {
  const first = typed.toLowerCase().split(/\s+/)[0]!
  const place = Math.max(0, words.toLowerCase().indexOf(first) - 30)
  return `${place > 0 ? '…' : ''}${words.slice(place, place + 90)}${words.length > place + 90 ? '…' : ''}`
}

/** To a number that is on no record, on the shelf; or on its record, where there is one by now. */
async function write(e164: string): Promise<void> {
  const { conversationId, recordId } = await api<{ conversationId: string | null, recordId: string | null }>('/api/conversations', {
    method: 'POST',
    body: { typed: e164 },
  })
  if (recordId) void navigateTo(`/record/${recordId}`)
  else useShelf().openId = conversationId
}

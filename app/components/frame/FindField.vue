<script setup lang="ts">
import { PhMagnifyingGlass } from '@phosphor-icons/vue'
import { readRef, showRef } from '~~/core/message/ref'
import type { FoundRef, Said, Stranger } from '~~/shared/find'
import { MODULE_FACTS } from '~~/shared/modules'
import type { RecordRow } from '~~/shared/record'
import { showPhone } from '~~/core/phone/show'
import { api } from '~/composables/api'
import { commandsWith, type Command } from '~/composables/commands'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { useShelf } from '~/stores/shelf'
import { UNUSABLE_WORDS } from '~/words/phone'
import { ago } from '~/words/time'

interface Found { key: string, name: string, about: string, act: () => void }
interface Group { label: string, items: Found[] }

const NOTHING = 'Nobody and nothing by that name, number or word.'
/** With fewer characters everybody would be found. */
const LEAST = 2
const now = useNow()
const shelf = useShelf()
const calls = useCalls()
const field = useTemplateRef<HTMLElement>('field')
const chosen = ref<Found | string | null>(null)
const groups = shallowRef<Group[]>([])
const empty = ref(NOTHING)
let asked = 0
let looking = false
/** Typed while something else was being looked for. */
let lookNext: string | null = null

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

const open = (recordId: string, entry?: string) => () => void navigateTo({ path: `/record/${recordId}`, query: { entry } })

function foundRecord({ id, name, module, company, phone, mail }: RecordRow): Found {
  const number = phone?.startsWith('+') ? showPhone(phone) : phone
  return { key: id, name, about: [MODULE_FACTS[module].one, company?.name, number ?? mail].filter(Boolean).join(', '), act: open(id) }
}

function foundSaid({ id, recordName, recordId, words, at, kind }: Said, typed: string): Found {
  const who = kind === 'text-in' ? `${recordName}` : kind === 'note' ? `Note on ${recordName}` : `To ${recordName}`
  return { key: id, name: who, about: `${ago(at, now.value)}: ${around(words, typed)}`, act: open(recordId, id) }
}

const foundCommand = ({ what, shown, act }: Command): Found => ({ key: what, name: what, about: shown ? `key ${shown}` : '', act })

/** The piece of a text in which the first of the words stands. */
function around(words: string, typed: string): string {
  const first = typed.toLowerCase().split(/\s+/)[0]!
  const place = Math.max(0, words.toLowerCase().indexOf(first) - 30)
  return `${place > 0 ? '…' : ''}${words.slice(place, place + 90)}${words.length > place + 90 ? '…' : ''}`
}

/** A text by the reference that somebody has read out; a mistyped one is called so. */
async function byRef(typed: string): Promise<Found[]> {
  const reading = readRef(typed)
  if (!reading.ok && reading.reason === 'no-ref') return []
  const found = await api<FoundRef>('/api/find/ref', { query: { typed } })
  if (found.kind === 'found') return [{ ...foundSaid(found.said, ''), name: `${showRef(found.ref)}, ${found.said.recordName}` }]
  empty.value = found.kind === 'unknown' ? `No text that you may see has the ref ${showRef(found.ref)}.` : found.kind === 'mistyped' ? 'This ref is mistyped: its check character does not fit. Ask for it once more.' : NOTHING
  return []
}

const LIKE_A_NUMBER = /^\+?[\d\s().-]{7,}$/

/** A number that is on no record can be texted and called all the same. */
async function strangerWith(typed: string): Promise<Found[]> {
  if (!LIKE_A_NUMBER.test(typed.trim())) return []
  const found = await api<Stranger>('/api/find/number', { query: { typed } })
  const call: Found = { key: `call ${typed}`, name: `Call ${typed}`, about: 'on no record', act: () => void calls.dial({ number: typed, name: typed }) }
  if (found.kind === 'unusable') {
    empty.value = found.reason === 'no-line' ? 'No line of yours texts the country of this number.' : UNUSABLE_WORDS[found.reason].split('. ')[0]!
    return found.reason === 'no-line' ? [call] : []
  }
  return [{ key: found.e164, name: `Text ${showPhone(found.e164)}`, about: `on no record, from ${found.line}`, act: () => void begin(found.e164) }, { ...call, name: `Call ${showPhone(found.e164)}` }]
}

async function begin(e164: string): Promise<void> {
  const { conversationId, recordId } = await api<{ conversationId: string | null, recordId: string | null }>('/api/conversations', { method: 'POST', body: { typed: e164 } })
  if (recordId) void navigateTo(`/record/${recordId}`)
  else shelf.openId = conversationId
}

/** What the list is for, and for what Enter was pressed before its list was there. */
let shownFor = ''
let enterFor: string | null = null

/** Whoever types quickly and presses Enter goes to what is found, not to what was found for half of the word. */
function onEnter(event: KeyboardEvent): void {
  const typed = field.value?.querySelector('input')?.value.trim() ?? ''
  if (typed.length < LEAST || typed === shownFor) return
  event.preventDefault()
  event.stopPropagation()
  enterFor = typed
}

function goIfWanted(): void {
  const first = groups.value[0]?.items[0]
  if (enterFor === null || enterFor !== shownFor || !first) return
  enterFor = null
  go(first)
}

const ask = (words: string) => api<RecordRow[]>('/api/find', { query: { words } })
/** Asked for with the key itself: the list that drops down says so only when it has drawn itself anew. */
let early: { typed: string, records: Promise<RecordRow[]> } | null = null

function onInput(event: Event): void {
  const typed = (event.target as HTMLInputElement).value
  if (looking || typed.length < LEAST || typed.trim() === '') return
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
  const turn = ++asked
  const query = { words: typed }
  const commands = commandsWith(typed).map(foundCommand)
  empty.value = NOTHING
  try {
    const reference = await byRef(typed)
    const asking = early?.typed === typed ? early.records : ask(typed)
    early = null
    const records = (await asking).map(foundRecord)
    // asked for only now: the database would look through what was said first, and people would wait for it
    const later = api<Said[]>('/api/find/said', { query })
    if (turn !== asked) return
    if (records.length === 0 && reference.length === 0) commands.unshift(...await strangerWith(typed))
    if (turn !== asked) return
    const something = records.length + commands.length + reference.length > 0
    shownFor = typed.trim()
    if (something) show(records, commands, reference)
    void later.then((hits) => {
      if (turn === asked && (hits.length > 0 || !something)) show(records, commands, [...reference, ...hits.map(hit => foundSaid(hit, typed))])
    }, () => undefined)
  }
  catch (error) {
    if (turn !== asked) return
    empty.value = error instanceof Error ? error.message : ''
    show([], commands)
  }
}

function go(found: Found): void {
  chosen.value = null
  shownFor = ''
  field.value?.querySelector('input')?.blur()
  found.act()
}

/** As it is heard. */
const inWords = ({ name, about }: Found) => [name, about].filter(Boolean).join(', ')

const focus = () => field.value?.querySelector('input')?.focus()
useKeys([
  { keys: '/', shown: '/', what: 'Find a person, a company, a number or a word', act: focus },
  { keys: '$mod+k', shown: 'Ctrl K', what: 'Find or do something, from anywhere', act: focus, inFields: true },
])
</script>

<template>
  <search
    ref="field"
    class="find"
    @keydown.enter.capture="onEnter"
    @input.capture="onInput"
  >
    <PhMagnifyingGlass
      size="18"
      aria-hidden="true"
    />
    <AutoComplete
      v-model="chosen"
      input-id="find"
      :suggestions="groups"
      :option-label="inWords"
      option-group-label="label"
      option-group-children="items"
      placeholder="Find a person, a number, a word, or something to do"
      aria-label="Find a person, a number, a word, or something to do"
      :delay="0"
      :min-length="LEAST"
      :empty-search-message="empty"
      auto-option-focus
      scroll-height="32rem"
      class="find-input"
      @complete="find($event.query)"
      @option-select="go($event.value as Found)"
    >
      <template #optiongroup="{ option }">
        <span class="quiet small">{{ (option as Group).label }}</span>
      </template>
      <template #option="{ option }">
        <span class="found">
          <strong>{{ option.name }}</strong>
          <span class="quiet small about">{{ option.about }}</span>
        </span>
      </template>
    </AutoComplete>
    <kbd aria-hidden="true">/</kbd>
  </search>
</template>

<style scoped>
.find { display: flex; align-items: center; gap: 0.5rem; flex: 0 1 520px; border-bottom: 1px solid var(--quiet); color: var(--quiet); min-width: 0; }
.find-input { flex: 1; min-width: 0; }
.find :deep(input) { border: 0; background: none; width: 100%; padding-left: 0; box-shadow: none; }
.find:focus-within { border-color: var(--mulberry); box-shadow: 0 1px 0 var(--mulberry); }
.find :deep(input:focus-visible) { outline: none; }
.found { display: block; max-width: 31rem; white-space: normal; }
.about { margin-left: 0.5rem; }
@media (max-width: 480px) { .find kbd { display: none; } }
</style>

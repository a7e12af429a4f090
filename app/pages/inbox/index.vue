<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import type { LineChoice } from '~~/shared/composer'
import { INBOX_FILTERS, type InboxItem } from '~~/shared/inbox'
import { MODULE_FACTS, TEXTED_MODULES } from '~~/shared/modules'
import { useBeside } from '~/composables/beside'
import { useInbox } from '~/composables/inbox'
import { useKeys } from '~/composables/keys'
import { useLoaded } from '~/composables/loaded'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'
import { many } from '~/words/count'
import { FILTER_WORDS, WHOSE_WORDS } from '~/words/inbox'
import { shortDay } from '~/words/time'

/** All conversations on my lines, in the order of what is owed, and beside them the one that is open. */
definePageMeta({ key: 'inbox' })
const inbox = useInbox()
const { show, words, lineId, module, openId, answers, owed, others, items, place, next, lookedBackTo, problem, busy } = inbox
const shelf = useShelf()
const beside = useBeside(openId, inbox.open)
const { kept, mayKeep } = beside
/** Whoever looks at the list has none open; what is kept comes back with the next one. */
const sheets = computed(() => openId.value ? beside.sheets.value : [])
const waiting = computed(() => (owed.value ?? []).filter(({ conversationId }) => !sheets.value.includes(conversationId)))
const typed = ref(words.value)
watch(words, now => typed.value = now)
const search = useDebounceFn(() => inbox.go({ words: typed.value.trim() }, true), 250)

interface Group { name: string, items: InboxItem[] }
const groups = computed<Group[]>(() => [
  ...(['me', 'nobody', 'colleague'] as const).map(whose => ({ name: WHOSE_WORDS[whose], items: owed.value?.filter(one => one.whose === whose) ?? [] })),
  { name: 'Settled', items: others.value },
].filter(group => group.items.length > 0))
const asked = computed(() => ({ show: show.value.join(), line: lineId.value || null, module: module.value, words: words.value }))
const narrowed = computed(() => show.value.length > 0 || words.value !== '' || lineId.value !== '' || module.value !== '')
const me = useMe()
/** The day to which a page was looked through, as the list says it. */
const back = computed(() => lookedBackTo.value === null ? null : shortDay(lookedBackTo.value, me.me!.zone))
const nothingFound = computed(() => {
  if (back.value) return `${busy.value ? 'None yet' : 'None'} among those back to ${back.value}.`
  if (narrowed.value) return 'No conversation matches. Take a filter off, or search for something else.'
  return 'Nobody has written yet. A text that comes in shows here.'
})
const valueOf = (event: Event) => (event.target as HTMLSelectElement).value

const list = useTemplateRef<HTMLElement>('list')
watch(openId, id => id && void nextTick(() => list.value?.querySelector(`[data-conversation="${id}"]`)?.scrollIntoView({ block: 'nearest' })))
// what is open beside the list is not on the shelf as well
watch(sheets, (ids) => {
  shelf.conversationsOnPage = ids
  if (shelf.openId && ids.includes(shelf.openId)) shelf.openId = null
}, { immediate: true })
onBeforeUnmount(() => shelf.conversationsOnPage = [])

const { found: lines } = useLoaded<LineChoice[]>('/api/lines')
const beginning = ref(false)
function begun(conversationId: string): void {
  beginning.value = false
  inbox.open(conversationId)
}

const field = useTemplateRef<HTMLInputElement>('field')
const recordOpen = computed(() => items.value[place.value]?.record ?? null)
/** The conversation in which the cursor is. */
function withCursor(): string | undefined {
  const at = [...document.querySelectorAll('.beside')].findIndex(one => one.contains(document.activeElement))
  return sheets.value[at]
}

useKeys([
  { keys: 'j', shown: 'J', what: 'The next conversation', act: () => inbox.step(1) },
  { keys: 'b', shown: 'B', what: 'The conversation before', act: () => inbox.step(-1) },
  { keys: 'o', shown: 'O', what: 'Open the record', when: () => recordOpen.value !== null, act: () => void navigateTo(`/record/${recordOpen.value!.id}`) },
  { keys: 'c', shown: 'C', what: 'Write to somebody else', act: () => beginning.value = true },
  { keys: 'f', shown: 'F', what: 'Search the conversations', act: () => field.value?.focus() },
  { keys: 'Escape', shown: 'Esc', what: 'Close the conversation', when: () => openId.value !== null, act: () => beside.close(openId.value!) },
  { keys: 'Alt+Comma', shown: 'Alt ,', what: 'The conversation to the left', when: () => sheets.value.length > 1, act: () => beside.step(-1, withCursor()), inFields: true },
  { keys: 'Alt+Period', shown: 'Alt .', what: 'The conversation to the right', when: () => sheets.value.length > 1, act: () => beside.step(1, withCursor()), inFields: true },
])
</script>

<template>
  <div
    class="inbox"
    :class="{ reading: openId, several: sheets.length > 1 }"
    :style="{ '--sheets': sheets.length }"
  >
    <section class="desk-list">
      <header class="head">
        <h1>Inbox</h1>
        <InboxNav />
        <label
          class="heard-only"
          for="inbox-words"
        >Search the conversations</label>
        <input
          id="inbox-words"
          ref="field"
          v-model="typed"
          type="search"
          class="plain-field"
          placeholder="A name, a number or words of a text"
          @input="search"
        >
        <button
          v-if="!openId && kept.length > 0"
          type="button"
          class="plain-button"
          @click="inbox.open(kept[0]!)"
        >
          Back to {{ many(kept.length, 'conversation', 'conversations') }} kept beside
        </button>
        <Button
          size="small"
          label="New text"
          @click="beginning = true"
        />
      </header>
      <NewTextForm
        v-if="beginning"
        @begun="begun"
        @close="beginning = false"
      />
      <InboxViews
        :asked="asked"
        @show="inbox.go({ ...$event })"
      />
      <ul
        class="filters"
        aria-label="Filters"
      >
        <li
          v-for="filter in INBOX_FILTERS"
          :key="filter"
        >
          <button
            type="button"
            class="filter small"
            :aria-pressed="show.includes(filter)"
            @click="inbox.toggle(filter)"
          >
            {{ FILTER_WORDS[filter] }}
          </button>
        </li>
        <li>
          <select
            class="filter small"
            aria-label="Of which line"
            :value="lineId"
            @change="inbox.go({ line: valueOf($event) })"
          >
            <option value="">
              All lines
            </option>
            <option
              v-for="line in lines ?? []"
              :key="line.id"
              :value="line.id"
            >
              {{ line.name }}
            </option>
          </select>
        </li>
        <li>
          <select
            class="filter small"
            aria-label="With whom"
            :value="module"
            @change="inbox.go({ module: valueOf($event) })"
          >
            <option value="">
              Everybody
            </option>
            <option
              v-for="one in TEXTED_MODULES"
              :key="one"
              :value="one"
            >
              {{ MODULE_FACTS[one].many }}
            </option>
          </select>
        </li>
      </ul>
      <LoadProblem
        v-if="problem"
        :problem="problem"
        again="Load them again"
        @again="inbox.load"
      />
      <p
        v-else-if="!owed"
        class="quiet empty"
        role="status"
      >
        Loading the conversations…
      </p>
      <p
        v-else-if="items.length === 0"
        class="quiet empty"
      >
        {{ nothingFound }}
      </p>
      <div
        ref="list"
        class="rows"
      >
        <section
          v-for="group in groups"
          :key="group.name"
          :aria-label="group.name"
        >
          <h2 class="small">
            {{ group.name }} <span
              v-if="group.items !== others"
              class="figures quiet"
            >{{ group.items.length }}</span>
          </h2>
          <ul>
            <li
              v-for="item in group.items"
              :key="item.conversationId"
            >
              <InboxRow
                :item="item"
                :open="item.conversationId === openId"
                @open="inbox.open(item.conversationId)"
              />
            </li>
          </ul>
        </section>
        <Button
          v-if="next"
          class="more"
          size="small"
          severity="secondary"
          variant="outlined"
          :label="back ? `Look further back than ${back}` : 'Show older ones'"
          :loading="busy"
          @click="inbox.showMore"
        />
      </div>
    </section>
    <h1
      v-if="sheets.length > 1"
      class="heard-only"
    >
      Inbox
    </h1>
    <WaitingEdge
      v-if="sheets.length > 1"
      :items="waiting"
      @open="inbox.open"
      @list="inbox.open(null)"
    />
    <BesideSheet
      v-for="id in sheets"
      :key="id"
      :conversation-id="id"
      :current="id === openId"
      :alone="sheets.length === 1"
      :kept="kept.includes(id)"
      :may-keep="mayKeep"
      :focused="answers && id === openId"
      @current="id === openId || inbox.open(id)"
      @toggle="beside.toggle(id)"
      @close="beside.close(id)"
      @list="inbox.open(null)"
    />
  </div>
</template>

<style scoped>
.inbox { display: grid; grid-template-columns: minmax(0, 1fr); height: calc(100vh - 90px); }
.inbox.reading { grid-template-columns: minmax(22rem, 5fr) minmax(26rem, 6fr); }
.desk-list { display: flex; flex-direction: column; min-height: 0; border-right: 1px solid var(--rule); }
.head { display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-7); align-items: center; padding: var(--space-5) var(--space-6) var(--space-3); }
.head input { flex: 1 1 14rem; max-width: 24rem; }
.reading .head input { order: 1; flex-basis: 100%; max-width: none; }
.head > :last-child { margin-left: auto; }
.filters { display: flex; flex-wrap: wrap; gap: var(--space-2); padding: 0 var(--space-6) var(--space-4); }
.filter { border: 1px solid var(--field-rule); border-radius: var(--round); background: var(--surface); padding: var(--space-hair) var(--space-3); min-height: 24px; cursor: pointer; }
.filter[aria-pressed='true'] { background: var(--accent-ground); border-color: var(--accent); color: var(--accent-deep); font-weight: 700; }
.rows { overflow-y: auto; min-height: 0; flex: 1; }
.rows h2 { position: sticky; top: 0; background: var(--paper); padding: var(--space-3) var(--space-6) var(--space-1); z-index: 1; }
.empty { padding: var(--space-5) var(--space-6); }
.more { margin: var(--space-5) var(--space-6); }
/* each wide enough to write in: what has no room is beside, by scrolling */
.inbox.several { grid-template-columns: 9.5rem repeat(var(--sheets), minmax(20rem, 1fr)); overflow-x: auto; }
.several .desk-list { display: none; }
@media (max-width: 900px) {
  .inbox, .inbox.reading, .inbox.several { grid-template-columns: minmax(0, 1fr); height: auto; }
  .reading .desk-list { display: none; }
  .several > :not(.current, h1) { display: none; }
}
</style>

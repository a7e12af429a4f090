<script setup lang="ts">
import { useDocumentVisibility } from '@vueuse/core'
import { isE164 } from '~~/core/phone/e164'
import { showPhone } from '~~/core/phone/show'
import { MODULE_FACTS } from '~~/shared/modules'
import type { ComposerStart } from '~~/shared/composer'
import type { ConversationDetail } from '~~/shared/shelf'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { usePresence } from '~/composables/presence'
import { useCalls } from '~/stores/calls'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'
import { clock, dayName } from '~/words/time'

/**
 * A conversation as a sheet of slips with the composer at its foot: the same on the shelf and in the inbox. Whoever opens it
 * has seen it, which settles nothing.
 */
const { conversationId, newest = 12, focused = false, sends } = defineProps<{
  conversationId: string
  /** As many of its slips are shown. */
  newest?: number
  /** Whether the cursor goes into the answer at once. */
  focused?: boolean
  /** What the button says that sends an answer. */
  sends?: string
}>()
const emit = defineEmits<{ sent: [], settled: [], left: [], shown: [] }>()

const me = useMe()
const shelf = useShelf()
const calls = useCalls()
const now = useNow()
const { found: conversation, problem, load, trying } = useLoaded<ConversationDetail>(`/api/conversations/${conversationId}`, see)
const { found: start, problem: noStart } = useLoaded<ComposerStart>(`/api/conversations/${conversationId}/composer`)
const opened = ref<'put-back' | 'assign' | null>(null)
const writing = ref(false)
const othersHere = usePresence({ of: 'conversation', id: conversationId }, writing)
watch([() => conversation.value !== null, () => start.value !== null], ([a, b]) => a && b && emit('shown'))

// what lies behind another window is not seen
const visibility = useDocumentVisibility()
const newestSeen = ref<string | null>(null)
function see(): void {
  const last = conversation.value?.entries[0]?.id ?? null
  if (visibility.value !== 'visible' || !conversation.value || newestSeen.value === last) return
  newestSeen.value = last
  // that it was seen is a courtesy: when it cannot be kept, it is the next time
  void api(`/api/conversations/${conversationId}/seen`, { method: 'POST', body: {} }).catch(() => newestSeen.value = null)
}
watch(visibility, see)

const settle = () => trying(async () => {
  await api(`/api/conversations/${conversationId}/settle`, { method: 'POST', body: {} })
  emit('settled')
  await Promise.all([load(), shelf.load()])
})
const giveBack = () => trying(async () => {
  await api(`/api/conversations/${conversationId}/assign`, { method: 'POST', body: { colleagueId: null } })
  await load()
})
async function done(): Promise<void> {
  opened.value = null
  await Promise.all([load(), shelf.load()])
}

useLive((notice) => {
  if (notice.kind === 'conversation' && notice.conversationId === conversationId) void load()
}, () => void load())
useKeys([
  { keys: 's', shown: 'S', what: 'Settle it: it needs no answer', when: () => owes.value, act: () => void settle() },
  { keys: 'w', shown: 'W', what: 'Put the conversation back', act: () => (opened.value = 'put-back') },
  { keys: 'a', shown: 'A', what: 'Assign the conversation', act: () => (opened.value = 'assign') },
  { keys: 'd', shown: 'D', what: 'Call them', when: () => callable.value, act: () => calls.dialByKey(asked.value) },
])

const first = computed(() => conversation.value?.records[0])
/** Whoever hides their number behind a name can be called by nobody. */
const callable = computed(() => isE164(conversation.value?.remote ?? '') && conversation.value?.phone?.mayBeCalled !== false)
const asked = computed(() => {
  const { phone, remote } = conversation.value!
  return { ...phone ? { phoneId: phone.id } : { number: remote }, name: title.value }
})
const title = computed(() => first.value?.name ?? (conversation.value ? showPhone(conversation.value.remote) : ''))
const person = computed(() => first.value?.name.split(' ')[0] ?? title.value)
const owes = computed(() => conversation.value?.waitsSince != null || conversation.value?.returnsAt != null)
const slips = computed(() => [...conversation.value?.entries ?? []].slice(0, newest).reverse())
/** With the day, where it is another one than that of the slip above. */
const days = computed(() => slips.value.map(({ at }, place, all) => {
  const day = dayName(at, me.me!.zone, now.value)
  return place > 0 && day === dayName(all[place - 1]!.at, me.me!.zone, now.value) ? null : day
}))
const about = computed(() => {
  const there = conversation.value?.zones[0]
  const who = first.value ? [MODULE_FACTS[first.value.module].one, first.value.title, first.value.city] : ['On no record']
  return [...who, there && `${clock(now.value, there)} there`, conversation.value?.lineName].filter(Boolean).join(', ')
})
const zone = computed(() => me.me!.zone)
const whose = computed(() => {
  const { assignee, returnsAt } = conversation.value!
  return [
    assignee && `${assignee.id === me.me!.id ? 'You have' : `${assignee.firstName} has`} this conversation.`,
    returnsAt !== null && `It was put back until ${clock(returnsAt, zone.value)}, ${dayName(returnsAt, zone.value, now.value)}.`,
  ].filter(Boolean).join(' ')
})
defineExpose({ title })
</script>

<template>
  <div class="sheet">
    <p
      v-if="problem || noStart"
      class="notice failed"
      role="alert"
    >
      {{ problem || noStart }}
    </p>
    <p
      v-if="!conversation && !problem"
      class="quiet"
      role="status"
    >
      Opening…
    </p>
    <template v-if="conversation">
      <header class="who">
        <h2><bdi>{{ title }}</bdi></h2>
        <p class="quiet">
          {{ about }}
        </p>
        <button
          v-if="callable"
          type="button"
          class="plain-button"
          @click="calls.dial(asked)"
        >
          Call
        </button>
        <NuxtLink
          class="open-record"
          :to="first ? `/record/${first.id}` : { path: '/records/leads/new', query: { phone: conversation.remote } }"
          @click="emit('left')"
        >{{ first ? 'Open' : 'Make a record' }}</NuxtLink>
      </header>
      <p
        v-if="conversation.records.length > 1"
        class="small quiet"
      >
        This number is also on
        <template
          v-for="(other, index) in conversation.records.slice(1)"
          :key="other.id"
        >
          <NuxtLink
            :to="`/record/${other.id}`"
            @click="emit('left')"
          >{{ other.name }}</NuxtLink>{{ index < conversation.records.length - 2 ? ', ' : '.' }}
        </template>
      </p>
      <p
        v-if="whose"
        class="whose"
      >
        {{ whose }}
        <button
          v-if="conversation.assignee?.id === me.me!.id"
          type="button"
          class="plain-button calm"
          @click="giveBack"
        >
          Give it back
        </button>
      </p>
      <ol class="slips">
        <template
          v-for="(entry, place) in slips"
          :key="entry.id"
        >
          <li
            v-if="days[place]"
            class="day small quiet"
          >
            {{ days[place] }}
          </li>
          <TextSlip
            v-if="entry.message"
            :entry="entry"
            :person="person"
            compact
            @changed="load"
          />
          <LineEntry
            v-else
            :entry="entry"
            :person="person"
          />
        </template>
      </ol>
      <RequestLine
        v-if="first && conversation.zones[0]"
        :record-id="first.id"
        :entries="conversation.entries"
        :zone="conversation.zones[0]"
        :person="person"
        @changed="load"
      />
      <p
        v-if="othersHere"
        class="others"
        role="status"
      >
        {{ othersHere }}
      </p>
      <AnswerBox
        v-if="start"
        :conversation="conversation"
        :start="start"
        :focused="focused"
        :sends="sends"
        @sent="emit('sent'); load()"
        @writing="writing = $event"
      />
      <LazyPutBackForm
        v-if="opened === 'put-back'"
        :conversation-id="conversationId"
        @done="done"
        @close="opened = null"
      />
      <LazyAssignForm
        v-else-if="opened === 'assign'"
        :conversation-id="conversationId"
        :assignee-id="conversation.assignee?.id ?? null"
        @done="done"
        @close="opened = null"
      />
      <footer class="foot">
        <button
          v-if="owes"
          type="button"
          class="plain-button calm"
          @click="settle"
        >
          Needs no answer
        </button>
        <button
          type="button"
          class="plain-button calm"
          @click="opened = 'put-back'"
        >
          Put it back…
        </button>
        <button
          type="button"
          class="plain-button calm"
          @click="opened = 'assign'"
        >
          Assign…
        </button>
        <slot name="foot" />
      </footer>
    </template>
  </div>
</template>

<style scoped>
.sheet { display: grid; gap: var(--space-5); align-content: start; }
.who { display: flex; flex-wrap: wrap; gap: 0 var(--space-6); align-items: baseline; }
.who h2 { font-size: var(--size-large); }
.who p { flex: 1 1 11rem; }
.open-record { font-weight: 700; text-decoration: none; white-space: nowrap; }
.whose { border-left: 3px solid var(--waiting); padding-left: var(--space-5); display: flex; flex-wrap: wrap; gap: var(--space-6); }
.others { font-weight: 700; }
.slips { display: grid; gap: var(--space-3); }
.day { font-weight: 700; }
.foot { display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-7); }
</style>

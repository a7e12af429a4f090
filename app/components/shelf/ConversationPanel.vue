<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { showPhone } from '~~/core/phone/show'
import { MODULE_FACTS } from '~~/shared/modules'
import type { ComposerStart } from '~~/shared/composer'
import type { ConversationDetail } from '~~/shared/shelf'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useShelf } from '~/stores/shelf'
import { clock } from '~/words/time'

const { conversationId, position } = defineProps<{ conversationId: string, position: number }>()
const emit = defineEmits<{ close: [] }>()

const shelf = useShelf()
const now = useNow()
const panel = useTemplateRef<HTMLElement>('panel')
const { found: conversation, problem, load, trying } = useLoaded<ConversationDetail>(`/api/conversations/${conversationId}`)
const { found: start, problem: noStart } = useLoaded<ComposerStart>(`/api/conversations/${conversationId}/composer`)
const before = document.activeElement

/** Back to where the cursor was, on a page that did not move. */
function close(): void {
  emit('close')
  if (before instanceof HTMLElement) before.focus()
}

const settle = () => trying(async () => {
  await api(`/api/conversations/${conversationId}/settle`, { method: 'POST', body: {} })
  close()
  await shelf.load()
})

useLive((notice) => {
  if (notice.kind === 'conversation' && notice.conversationId === conversationId) void load()
}, () => void load())
useKeys([{ keys: 'Escape', shown: 'Esc', what: 'Close the conversation', inFields: true, act: close }])
onClickOutside(panel, close, { ignore: ['.strip', '.p-select-overlay', '.p-dialog', '.p-dialog-mask', '.template-picker'] })

const first = computed(() => conversation.value?.records[0])
const title = computed(() => first.value?.name ?? (conversation.value ? showPhone(conversation.value.remote) : ''))
const person = computed(() => first.value?.name.split(' ')[0] ?? title.value)
const slips = computed(() => [...conversation.value?.entries ?? []].slice(0, 5).reverse())
const about = computed(() => {
  const there = conversation.value?.zones[0]
  const who = first.value ? [MODULE_FACTS[first.value.module].one, first.value.title, first.value.city] : ['On no record']
  return [...who, there && `${clock(now.value, there)} there`].filter(Boolean).join(', ')
})
</script>

<template>
  <section
    ref="panel"
    class="panel"
    role="dialog"
    :aria-label="`Conversation with ${title}`"
    :style="{ '--position': position }"
  >
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
    >
      Opening…
    </p>
    <template v-if="conversation">
      <header class="who">
        <h2>{{ title }}</h2>
        <p class="quiet">
          {{ about }}
        </p>
        <NuxtLink
          v-if="first"
          class="open-record"
          :to="`/record/${first.id}`"
          @click="emit('close')"
        >Open</NuxtLink>
        <NuxtLink
          v-else
          class="open-record"
          :to="{ path: '/records/leads/new', query: { phone: conversation.remote } }"
          @click="emit('close')"
        >Make a record</NuxtLink>
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
            @click="emit('close')"
          >{{ other.name }}</NuxtLink>{{ index < conversation.records.length - 2 ? ', ' : '.' }}
        </template>
      </p>
      <ol class="slips">
        <template
          v-for="entry in slips"
          :key="entry.id"
        >
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
      <AnswerBox
        v-if="start"
        :conversation="conversation"
        :start="start"
        @sent="close"
      />
      <footer class="foot">
        <button
          type="button"
          class="plain-button calm"
          @click="settle"
        >
          Needs no answer
        </button>
        <button
          type="button"
          class="plain-button calm back"
          @click="close"
        >
          <kbd>Esc</kbd> puts it back
        </button>
      </footer>
    </template>
  </section>
</template>

<style scoped>
.panel {
  position: absolute; top: 100%; left: clamp(0rem, calc(var(--position) * 13rem), calc(100vw - 84px - 31rem)); width: min(30rem, 100vw - 84px);
  max-height: calc(100vh - 110px); overflow-y: auto; background: var(--surface); border: 1px solid var(--ink); border-top: 0; border-radius: 0 0 8px 8px;
  padding: var(--space-6) var(--space-6); display: grid; gap: var(--space-5); animation: open-down var(--move);
}
@keyframes open-down { from { opacity: 0; transform: translateY(-6px); } }
.who { display: flex; gap: var(--space-6); align-items: baseline; }
.who h2 { font-size: var(--size-large); }
.who p { flex: 1; }
.open-record { font-weight: 700; text-decoration: none; }
.slips { display: grid; gap: var(--space-3); }
.foot { display: flex; gap: var(--space-7); }
.back { margin-left: auto; }
@media (max-width: 700px) { .panel { left: 0; width: 100vw; } }
</style>

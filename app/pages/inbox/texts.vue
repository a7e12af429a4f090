<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { showPhone } from '~~/core/phone/show'
import { TEXT_SHELVES, type InboxText, type InboxTexts, type TextShelf } from '~~/shared/inbox'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { newestOnly } from '~/composables/newest'
import { useTrying } from '~/composables/trying'
import { TEXT_SHELF_WORDS } from '~/words/inbox'
import { useMe } from '~/stores/me'
import { useNow } from '~/composables/now'
import { dayName } from '~/words/time'

/** The texts of my lines as such, by what became of them, each with what can be done with it. */
const route = useRoute()
const me = useMe()
const now = useNow()
const what = computed<TextShelf>(() => TEXT_SHELVES.find(one => one === route.query.what) ?? 'received')
const texts = shallowRef<InboxText[] | null>(null)
const more = ref(false)
const { problem, busy, trying } = useTrying()
const begin = newestOnly()

const fetchPage = (after?: InboxText) => api<InboxTexts>('/api/inbox/texts', {
  query: { what: what.value, ...after && { beforeAt: after.entry.message!.madeAt, beforeId: after.entry.message!.id } },
})
const load = () => trying(async () => {
  const isNewest = begin()
  const page = await fetchPage()
  if (!isNewest()) return
  texts.value = page.texts
  more.value = page.more
})
const showMore = () => trying(async () => {
  const page = await fetchPage(texts.value!.at(-1))
  texts.value = [...texts.value!, ...page.texts]
  more.value = page.more
})
watch(what, () => {
  texts.value = null
  void load()
})
const loadSoon = useDebounceFn(load, 400)
useLive(notice => (notice.kind === 'conversation' || notice.kind === 'entry') && void loadSoon(), () => void load())
void load()

const nameOf = ({ name, remote }: InboxText) => name ?? showPhone(remote)
/** With the day, where it is another one than that of the text above. */
const days = computed(() => (texts.value ?? []).map(({ entry }, place, all) => {
  const day = (at: number) => dayName(at, me.me!.zone, now.value)
  return place > 0 && day(all[place - 1]!.entry.at) === day(entry.at) ? null : day(entry.at)
}))
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>Texts</h1>
      <InboxNav />
    </header>
    <nav
      class="shelves"
      aria-label="What became of them"
    >
      <NuxtLink
        v-for="one in TEXT_SHELVES"
        :key="one"
        :to="{ query: one === 'received' ? {} : { what: one } }"
        :class="{ here: one === what }"
        :aria-current="one === what ? 'true' : undefined"
      >
        {{ TEXT_SHELF_WORDS[one].name }}
      </NuxtLink>
    </nav>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <p
      v-else-if="!texts"
      class="quiet"
      role="status"
    >
      Loading the texts…
    </p>
    <p
      v-else-if="texts.length === 0"
      class="quiet"
    >
      {{ TEXT_SHELF_WORDS[what].none }}
    </p>
    <ol
      v-else
      class="texts"
    >
      <template
        v-for="(text, place) in texts"
        :key="text.entry.id"
      >
        <li v-if="days[place]">
          <h2 class="small">
            {{ days[place] }}
          </h2>
        </li>
        <TextSlip
          :entry="text.entry"
          :person="nameOf(text)"
          @changed="load"
        >
          <template #more>
            <NuxtLink
              class="small"
              :to="{ path: '/inbox', query: { with: text.entry.message!.conversationId } }"
            >
              Conversation with <bdi>{{ nameOf(text) }}</bdi>
            </NuxtLink>
          </template>
        </TextSlip>
      </template>
    </ol>
    <Button
      v-if="more"
      class="more"
      size="small"
      severity="secondary"
      variant="outlined"
      label="Show older ones"
      :loading="busy"
      @click="showMore"
    />
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-5); align-content: start; max-width: 60rem; }
.head { display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-8); align-items: baseline; }
.shelves { display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-7); }
.shelves a { color: var(--quiet); }
.shelves a.here { color: var(--ink); font-weight: 700; text-decoration: none; }
.texts { display: grid; gap: var(--space-4); }
.more { justify-self: start; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } }
</style>

<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import type { PastNotice, PastNotices } from '~~/shared/notices'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { nameOf, sayNotice } from '~/words/inbox'
import { clock, dayName } from '~/words/time'

/** What came in for me, the newest first, seen or not: each leads to its conversation, with the cursor in the answer. */
const me = useMe()
const now = useNow()
const { found, problem, load } = useLoaded<PastNotices>('/api/inbox/notices')
const loadSoon = useDebounceFn(load, 400)
useLive(notice => (notice.kind === 'conversation' || notice.kind === 'seen') && void loadSoon(), () => void load())

const days = computed(() => {
  const all = new Map<string, PastNotice[]>()
  for (const one of found.value?.notices ?? []) {
    const day = dayName(one.at, me.me!.zone, now.value)
    all.set(day, [...all.get(day) ?? [], one])
  }
  return [...all]
})
const unseen = computed(() => found.value?.notices.filter(one => one.unseen).length ?? 0)
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>Notices</h1>
      <InboxNav />
      <NuxtLink
        class="how small"
        to="/told"
      >How I am told</NuxtLink>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <p
      v-else-if="!found"
      class="quiet"
      role="status"
    >
      Loading what came in…
    </p>
    <p
      v-else-if="found.notices.length === 0"
      class="quiet"
    >
      Nothing came in within the last two weeks.
    </p>
    <p
      v-else
      class="quiet"
    >
      {{ unseen === 0 ? 'You have seen everything.' : `${unseen} not seen yet.` }}
    </p>
    <section
      v-for="[day, notices] in days"
      :key="day"
    >
      <h2>{{ day }}</h2>
      <ul>
        <li
          v-for="one in notices"
          :key="one.id"
        >
          <NuxtLink
            class="row"
            :class="{ unseen: one.unseen }"
            :to="{ path: '/inbox', query: { with: one.conversationId, answer: '1' } }"
          >
            <span class="name"><span
              v-if="one.unseen"
              class="ring"
            ><span class="heard-only">Not seen: </span></span><bdi>{{ nameOf(one) }}</bdi></span>
            <bdi class="said">{{ sayNotice(one) }}</bdi>
            <span
              class="small"
              :class="one.waits ? 'waits' : 'quiet'"
            >{{ one.waits ? 'waits' : 'settled' }}</span>
            <time
              class="small figures quiet"
              :datetime="new Date(one.at).toISOString()"
            >{{ clock(one.at, me.me!.zone) }}</time>
          </NuxtLink>
        </li>
      </ul>
    </section>
    <p
      v-if="found?.more"
      class="quiet"
    >
      What came in before is in the <NuxtLink to="/inbox">
        inbox
      </NuxtLink>.
    </p>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-5); align-content: start; max-width: 64rem; }
.head { display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-8); align-items: baseline; }
.how { margin-left: auto; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.row { display: grid; grid-template-columns: 13rem minmax(0, 1fr) 4rem var(--gutter); gap: 0 var(--space-5); align-items: baseline; min-height: 36px; padding: var(--space-2) 0; border-top: 1px solid var(--rule); color: inherit; text-decoration: none; }
.row:hover { background: var(--hover); }
.name, .said { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.unseen .name, .unseen .said { font-weight: 800; }
.row time { text-align: right; }
.waits { color: var(--waiting); font-weight: 700; }
.ring { display: inline-block; width: 0.6em; height: 0.6em; margin-right: var(--space-2); border: 2px solid var(--accent); border-radius: 50%; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } .row { grid-template-columns: minmax(0, 1fr) auto auto; } .said { grid-row: 2; grid-column: 1 / -1; } }
</style>

<script setup lang="ts">
import type { FeedPlace, GroupFeed, GroupFeedItem } from '~~/shared/groups'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { many } from '~/words/count'
import { ago } from '~/words/time'

/** What was sent to a group and what came back, the newest first. */
const { groupId, changes } = defineProps<{ groupId: string, /** Grows when something came or went. */ changes: number }>()
const now = useNow()
const earlier = shallowRef<GroupFeedItem[]>([])
const next = shallowRef<FeedPlace | null>(null)
const read = (before: FeedPlace | null) =>
  api<GroupFeed>(`/api/groups/${groupId}/feed`, { query: before ? { beforeAt: before.at, beforeId: before.id } : {} })
const { found: newest, problem, load, trying } = useLoaded(() => read(null), (feed) => {
  earlier.value = []
  next.value = feed.next
})
watch(() => changes, load)
const items = computed(() => [...newest.value?.items ?? [], ...earlier.value])
const goOn = () => trying(async () => {
  const feed = await read(next.value)
  earlier.value = [...earlier.value, ...feed.items]
  next.value = feed.next
})
</script>

<template>
  <section aria-labelledby="group-feed">
    <h2 id="group-feed">
      Sent and come back
    </h2>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load it again"
      @again="load"
    />
    <p
      v-else-if="!newest"
      class="quiet"
      role="status"
    >
      Loading what was sent…
    </p>
    <p
      v-else-if="items.length === 0"
      class="quiet"
    >
      Nothing was sent to the group as a whole yet. What is, stands here, with the answers.
    </p>
    <ol v-else>
      <li
        v-for="item in items"
        :key="item.kind === 'sent' ? item.bulkId : item.activityId"
        :class="item.kind"
      >
        <template v-if="item.kind === 'sent'">
          <p>
            <strong>{{ item.by }}</strong> sent
            <NuxtLink
              v-if="item.mayOpen"
              :to="`/bulk/${item.bulkId}`"
            >
              {{ item.name }}
            </NuxtLink>
            <template v-else>
              {{ item.name }}
            </template>
          </p>
          <p class="quiet small figures">
            to {{ many(item.texted, 'person', 'people') }}, {{ item.answered.toLocaleString('en-US') }} answered, {{ ago(item.at, now) }}
          </p>
        </template>
        <template v-else>
          <p>
            <NuxtLink :to="`/record/${item.recordId}?entry=${item.activityId}`">
              <strong>{{ item.name }}</strong>
            </NuxtLink> <span class="quiet small figures">{{ ago(item.at, now) }}</span>
          </p>
          <p
            class="words"
            dir="auto"
          >
            {{ item.words ?? 'a picture' }}
          </p>
        </template>
      </li>
    </ol>
    <button
      v-if="next !== null"
      type="button"
      class="plain-button"
      @click="goOn"
    >
      Earlier ones
    </button>
  </section>
</template>

<style scoped>
h2 { font-size: var(--size-text); padding-bottom: var(--space-2); }
ol { list-style: none; padding: 0; margin: 0; }
li { border-top: 1px solid var(--rule); padding: var(--space-3) 0 var(--space-3) var(--space-4); border-left: 3px solid transparent; }
.sent { border-left-color: var(--accent); }
.came-in { border-left-color: var(--good); }
.words { white-space: pre-wrap; overflow-wrap: anywhere; }
</style>

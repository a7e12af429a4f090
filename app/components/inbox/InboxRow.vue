<script setup lang="ts">
import type { InboxItem } from '~~/shared/inbox'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { nameOf, sayLast } from '~/words/inbox'
import { clock, shortDay, span } from '~/words/time'

/** A conversation in one line: who, the newest words, how long it waits, with whom, over which line. */
const { item, open } = defineProps<{ item: InboxItem, open: boolean }>()
const emit = defineEmits<{ open: [] }>()

const DAY = 86_400_000
const me = useMe()
const now = useNow()
const when = computed(() => {
  const { waitsSince, returnsAt, lastAt } = item
  const zone = me.me!.zone
  const moment = (at: number) => Math.abs(now.value - at) < DAY ? clock(at, zone) : shortDay(at, zone)
  if (waitsSince !== null) return `waits ${span(now.value - waitsSince)}`
  return returnsAt === null ? moment(lastAt) : `back ${moment(returnsAt)}`
})
const said = computed(() => sayLast(item.last))
</script>

<template>
  <button
    type="button"
    class="row"
    :class="{ open, unseen: item.unseen }"
    :aria-current="open ? 'true' : undefined"
    :data-conversation="item.conversationId"
    @click="emit('open')"
  >
    <span class="name"><span
      v-if="item.unseen"
      class="ring"
    ><span class="heard-only">Not seen: </span></span><bdi>{{ nameOf(item) }}</bdi><span
      v-if="item.holders > 1"
      class="quiet"
    > and {{ item.holders - 1 }} more</span></span>
    <span
      class="when small figures"
      :class="item.waitsSince === null ? 'quiet' : 'waits'"
    >{{ when }}</span>
    <span class="said"><span
      v-if="item.answersTo"
      class="to"
    >to “<bdi>{{ item.answersTo }}</bdi>”: </span><bdi>{{ said }}</bdi></span>
    <span class="small quiet over">{{ item.assignee ? `${item.assignee.firstName} has it` : item.line }}</span>
  </button>
</template>

<style scoped>
.row { display: grid; grid-template-columns: 9.5rem minmax(0, 1fr) auto; gap: 0 var(--space-5); align-items: baseline; width: 100%; min-height: 36px; padding: var(--space-2) var(--space-5); border: 0; border-bottom: 1px solid var(--rule); border-left: 3px solid transparent; background: none; text-align: left; cursor: pointer; }
.row:hover { background: var(--hover); }
.row.open { border-left-color: var(--accent); background: var(--accent-ground); }
.name, .said, .over { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.name { grid-row: 1; font-weight: 600; }
.said { grid-area: 1 / 2; }
.unseen .name, .unseen .said { font-weight: 800; }
.when { grid-area: 1 / 3; text-align: right; }
.to { color: var(--quiet); font-weight: 400; }
.waits { color: var(--waiting); font-weight: 700; }
.over { grid-area: 2 / 3; display: none; }
.ring { display: inline-block; width: 0.6em; height: 0.6em; margin-right: var(--space-2); border: 2px solid var(--accent); border-radius: 50%; }
</style>

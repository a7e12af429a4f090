<script setup lang="ts">
import type { InboxItem } from '~~/shared/inbox'
import { useNow } from '~/composables/now'
import { nameOf } from '~/words/inbox'
import { span } from '~/words/time'

/** What waits, in a narrow strip beside the conversations that lie open: whatever comes in appears here and moves none of them. */
defineProps<{ items: InboxItem[] }>()
const emit = defineEmits<{ open: [conversationId: string], list: [] }>()
const now = useNow()
</script>

<template>
  <nav
    class="edge"
    aria-label="What waits"
  >
    <button
      type="button"
      class="plain-button"
      @click="emit('list')"
    >
      The whole list
    </button>
    <p
      v-if="items.length === 0"
      class="quiet small"
    >
      Nobody else waits.
    </p>
    <ul aria-live="polite">
      <li
        v-for="item in items"
        :key="item.conversationId"
      >
        <button
          type="button"
          class="one"
          :class="{ unseen: item.unseen }"
          @click="emit('open', item.conversationId)"
        >
          <span
            v-if="item.unseen"
            class="ring"
          ><span class="heard-only">Not seen: </span></span><bdi>{{ nameOf(item) }}</bdi>
          <span class="small figures waits">{{ item.waitsSince === null ? '' : span(now - item.waitsSince) }}</span>
        </button>
      </li>
    </ul>
  </nav>
</template>

<style scoped>
.edge { overflow-y: auto; min-height: 0; border-right: 1px solid var(--rule); padding: var(--space-4) 0; }
.edge > .plain-button, .edge > p { padding: 0 var(--space-4); margin-bottom: var(--space-4); text-align: left; }
.one { display: block; width: 100%; min-height: 36px; padding: var(--space-2) var(--space-4); border: 0; border-bottom: 1px solid var(--rule); background: none; text-align: left; cursor: pointer; overflow-wrap: anywhere; }
.one:hover { background: var(--hover); }
.unseen { font-weight: 700; }
.ring { display: inline-block; width: 0.6em; height: 0.6em; margin-right: var(--space-2); border: 2px solid var(--accent); border-radius: 50%; }
.waits { color: var(--waiting); display: block; font-weight: 400; }
</style>

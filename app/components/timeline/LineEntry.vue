<script setup lang="ts">
import type { TimelineEntry } from '~~/shared/timeline'
import { useMe } from '~/stores/me'
import { clock } from '~/words/time'
import { sayEntry } from '~/words/entries'

/** Everything that is no text: a single line that opens where there is more. */
const { entry, person } = defineProps<{ entry: TimelineEntry, person: string }>()
const me = useMe()
const said = computed(() => sayEntry(entry, person))
const isCall = computed(() => entry.kind.startsWith('call'))
</script>

<template>
  <li
    class="entry"
    :class="{ call: isCall, note: entry.kind === 'note', refused: entry.data.kind === 'refused' }"
  >
    <time
      class="figures quiet"
      :datetime="new Date(entry.at).toISOString()"
    >{{ clock(entry.at, me.me!.zone) }}</time>
    <div class="line">
      <details v-if="said.more.length > 0">
        <summary><strong>{{ said.who }}</strong> {{ said.what }}<template v-if="said.went">. <strong :class="`key-${said.went.colour}`">{{ said.went.name }}</strong></template></summary>
        <p
          v-for="one in said.more"
          :key="one"
          class="quiet"
        >
          {{ one }}
        </p>
      </details>
      <p v-else>
        <strong>{{ said.who }}</strong> {{ said.what }}<template v-if="said.went">
          . <strong :class="`key-${said.went.colour}`">{{ said.went.name }}</strong>
        </template><template v-if="entry.via">
          <span class="quiet"> (with {{ entry.via.name }})</span>
        </template>
      </p>
      <p
        v-if="said.over"
        class="small quiet"
      >
        {{ said.over }}
      </p>
      <p
        v-if="entry.kind === 'note' || (isCall && entry.words)"
        class="words"
        dir="auto"
      >
        {{ entry.words }}
      </p>
      <LazyRecordingPlayer
        v-if="entry.call?.recording"
        :recording="entry.call.recording"
      />
      <slot />
    </div>
  </li>
</template>

<style scoped>
.entry { display: grid; grid-template-columns: var(--gutter) minmax(0, 1fr); }
.line { border-left: 3px solid var(--rule); padding-left: var(--space-5); }
.call .line { border-left-color: var(--calm); }
.note .line { border-left-color: var(--waiting); }
.refused .line { border-left-color: var(--wrong); }
.words { white-space: pre-wrap; overflow-wrap: anywhere; }
summary { cursor: pointer; }
</style>

<script setup lang="ts">
import type { BulkTextDetail } from '~~/shared/bulk-texts'
import { LEFT_OUT_WORDS, sayLeftOut, type Those } from '~/words/bulk'
import { many } from '~/words/count'

/** What the check has found: how many get it, and how many do not, each with the reason and what can be done. */
const { bulk, busy } = defineProps<{ bulk: BulkTextDetail, busy: boolean }>()
const emit = defineEmits<{ see: [which: Those], takeOutLately: [], write: [] }>()

const ready = computed(() => bulk.counts.ready)
const inParts = computed(() => Object.entries(bulk.parts)
  .map(([parts, people]) => `${people.toLocaleString('en-US')} in ${many(Number(parts), 'part', 'parts')}`).join(', '))
</script>

<template>
  <section aria-label="Checked, person by person">
    <h2>Checked, person by person</h2>
    <ul>
      <li>
        <strong class="count good">{{ ready.toLocaleString('en-US') }}</strong>
        <p>
          will get the text
          <span class="small quiet block">{{ inParts }}</span>
        </p>
        <button
          v-if="ready > 0"
          type="button"
          class="plain-button"
          @click="emit('see', { standing: 'ready' })"
        >
          See them
        </button>
      </li>
      <li v-if="bulk.lately > 0">
        <strong class="count warns">{{ bulk.lately.toLocaleString('en-US') }}</strong>
        <p>
          of them {{ bulk.lately === 1 ? 'was' : 'were' }} texted in the last {{ many(bulk.latelyDays, 'day', 'days') }}
          <span class="small quiet block">
            by you or a colleague
            <button
              type="button"
              class="plain-button"
              @click="emit('see', { standing: 'ready', lately: true })"
            >See them</button>
          </span>
        </p>
        <button
          type="button"
          class="plain-button"
          :disabled="busy"
          @click="emit('takeOutLately')"
        >
          Take out
        </button>
      </li>
      <li
        v-for="one in bulk.leftOut"
        :key="`${one.reason} ${one.detail}`"
      >
        <strong
          class="count"
          :class="LEFT_OUT_WORDS[one.reason].mendable ? 'warns' : 'wrong'"
        >{{ one.people.toLocaleString('en-US') }}</strong>
        <p>
          {{ one.detail ? `${one.people === 1 ? 'has' : 'have'} an empty “${one.detail}”` : sayLeftOut(one.reason, one.people) }}
          <span class="small quiet block">{{ LEFT_OUT_WORDS[one.reason].then }}</span>
        </p>
        <button
          type="button"
          class="plain-button"
          @click="emit('see', { standing: 'left-out', reason: one.reason })"
        >
          See them
        </button>
      </li>
      <li v-if="bulk.counts['held-out'] > 0">
        <strong class="count">{{ bulk.counts['held-out'].toLocaleString('en-US') }}</strong>
        <p>
          held back by chance
          <span class="small quiet block">{{ bulk.holdOut }} of a hundred; they get nothing</span>
        </p>
        <button
          type="button"
          class="plain-button"
          @click="emit('see', { standing: 'held-out' })"
        >
          See them
        </button>
      </li>
      <li v-if="bulk.counts['taken-out'] > 0">
        <strong class="count">{{ bulk.counts['taken-out'].toLocaleString('en-US') }}</strong>
        <p>taken out by hand</p>
        <button
          type="button"
          class="plain-button"
          @click="emit('see', { standing: 'taken-out' })"
        >
          See them
        </button>
      </li>
    </ul>
    <template v-if="bulk.longest">
      <h2>Longest text</h2>
      <blockquote>
        <p class="small quiet">
          to <NuxtLink :to="`/record/${bulk.longest.recordId}`">
            <strong>{{ bulk.longest.name }}</strong>
          </NuxtLink>
        </p>
        <p class="words">
          {{ bulk.longest.words }}
        </p>
        <p
          v-if="bulk.pictureIds.length > 0"
          class="pictures"
        >
          <img
            v-for="(id, place) in bulk.pictureIds"
            :key="id"
            :src="`/api/pictures/${id}`"
            :alt="`Picture ${place + 1}`"
          >
        </p>
        <p class="small quiet figures">
          {{ many(bulk.longest.units, 'character', 'characters') }}, {{ bulk.pictureIds.length > 0 ? 'one picture message' : many(bulk.longest.parts, 'part', 'parts') }}
        </p>
      </blockquote>
    </template>
    <button
      type="button"
      class="plain-button"
      @click="emit('write')"
    >
      Change what it says
    </button>
  </section>
</template>

<style scoped>
h2 { font-size: var(--size-text); padding: var(--space-2) 0; }
li { display: grid; grid-template-columns: 4.5rem minmax(0, 1fr) auto; gap: var(--space-4); align-items: baseline; border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.count { font-size: var(--size-large); text-align: right; font-variant-numeric: tabular-nums; }
.good { color: var(--good); }
.warns { color: var(--waiting); }
.wrong { color: var(--wrong); }
.block { display: block; }
blockquote { margin: 0 0 var(--space-5); border-left: 3px solid var(--accent); padding-left: var(--space-5); }
.pictures { display: flex; gap: var(--space-3); flex-wrap: wrap; padding: var(--space-2) 0; }
.pictures img { height: 72px; max-width: 160px; object-fit: cover; border-radius: var(--round-small); }
.words { white-space: pre-wrap; overflow-wrap: anywhere; font-size: var(--size-text); }
</style>

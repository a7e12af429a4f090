<script setup lang="ts">
import type { Stuck } from '~~/shared/stuck'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { onlyWith } from '~/composables/set-up-list'
import { useMe } from '~/stores/me'
import { ago } from '~/words/time'

definePageMeta({ middleware: () => onlyWith('stuck.see') })

const me = useMe()
const now = useNow()
const { found: stuck, problem, load, trying } = useLoaded<Stuck>('/api/set-up/stuck')

const startAgain = (id: string) =>
  trying(async () => (stuck.value = await api<Stuck>(`/api/set-up/stuck/jobs/${id}/again`, { method: 'POST', body: {} })))
const settle = (id: string, how: 'again' | 'leave') =>
  trying(async () => (stuck.value = await api<Stuck>(`/api/set-up/stuck/events/${id}/settle`, { method: 'POST', body: { how } })))
// the number on the rail goes along
watch(stuck, () => void me.load())
</script>

<template>
  <SetUpRoom
    title="What got stuck"
    hint="Everything else goes on meanwhile. What is listed here waits for you."
    what="what got stuck"
    :loaded="stuck !== null"
    :problem="problem"
    @again="load"
  >
    <p
      v-if="stuck!.jobs.length === 0 && stuck!.events.length === 0"
      class="quiet"
    >
      Nothing is stuck.
    </p>
    <section
      v-if="stuck!.jobs.length > 0"
      aria-labelledby="stuck-jobs"
    >
      <h2 id="stuck-jobs">
        Work that failed again and again
      </h2>
      <ul class="stuck">
        <li
          v-for="one in stuck!.jobs"
          :key="one.id"
        >
          <p>
            <strong>{{ one.what }}</strong> <span class="quiet">failed {{ one.failures }} times in a row, stopped {{ ago(one.since, now) }}</span>
          </p>
          <p class="quiet small why">
            {{ one.why }}
          </p>
          <button
            type="button"
            class="plain-button"
            @click="startAgain(one.id)"
          >
            Start it again
          </button>
        </li>
      </ul>
    </section>
    <section
      v-if="stuck!.events.length > 0"
      aria-labelledby="stuck-events"
    >
      <h2 id="stuck-events">
        Messages from outside that could not be read
      </h2>
      <ul class="stuck">
        <li
          v-for="one in stuck!.events"
          :key="one.id"
        >
          <p>
            <strong>From {{ one.from }}</strong> <span class="quiet">{{ ago(one.at, now) }}</span>
          </p>
          <p>{{ one.why }}</p>
          <details>
            <summary class="quiet small">
              The message itself
            </summary>
            <pre class="told small">{{ one.told }}</pre>
          </details>
          <p class="acts">
            <button
              v-if="one.again"
              type="button"
              class="plain-button"
              @click="settle(one.id, 'again')"
            >
              Try again
            </button>
            <button
              type="button"
              class="plain-button calm"
              @click="settle(one.id, 'leave')"
            >
              Ignore it
            </button>
          </p>
        </li>
      </ul>
    </section>
  </SetUpRoom>
</template>

<style scoped>
.stuck { display: grid; max-width: 60rem; margin-top: var(--space-2); border-top: 1px solid var(--rule); }
.stuck li { display: grid; gap: var(--space-1); justify-items: start; padding: var(--space-4) 0; border-bottom: 1px solid var(--rule); }
.why { overflow-wrap: anywhere; }
.told { max-width: 60rem; max-height: 14rem; overflow: auto; white-space: pre-wrap; overflow-wrap: anywhere; margin: var(--space-2) 0 0; }
.acts { display: flex; gap: var(--space-7); }
</style>

<script setup lang="ts">
import type { CallDetail, SpokenMessage } from '~~/shared/calling'
import { useKeys } from '~/composables/keys'
import { useLoaded } from '~/composables/loaded'
import { useCalls } from '~/stores/calls'
import { sayDuration } from '~/words/calls'

/** What was spoken before, to be left on the mailbox that answers while one goes on. */
const { call } = defineProps<{ call: CallDetail }>()
const calls = useCalls()
const { found: all, problem, load } = useLoaded<SpokenMessage[]>('/api/spoken')

const numbered = ({ code }: KeyboardEvent) => all.value?.[Number(code.at(-1)) - 1]
useKeys([{
  keys: 'Alt+(Digit[1-9])', shown: 'Alt 1', what: 'Leave the message with that number', inFields: true,
  when: event => numbered(event) !== undefined && !calls.busy,
  act: event => void calls.leave(call, numbered(event)!.id),
}])
</script>

<template>
  <section aria-label="Leave a message">
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <p
      v-else-if="!all"
      class="quiet"
      role="status"
    >
      Loading what can be left…
    </p>
    <p
      v-else-if="all.length === 0"
      class="quiet"
    >
      Nothing has been spoken yet that could be left. <NuxtLink to="/calling/spoken">
        Record a message
      </NuxtLink>
    </p>
    <ul v-else>
      <li
        v-for="(one, place) in all"
        :key="one.id"
      >
        <button
          type="button"
          class="one"
          :disabled="calls.busy"
          @click="calls.leave(call, one.id)"
        >
          <kbd v-if="place < 9">Alt {{ place + 1 }}</kbd>
          <strong>{{ one.name }}</strong>
          <span class="quiet figures">{{ sayDuration(one.ms) }}</span>
          <span class="quiet words">{{ one.words }}</span>
        </button>
      </li>
    </ul>
    <p
      v-if="all && all.length > 0"
      class="quiet small"
    >
      It is played after the tone, and then the call ends. You are free at once.
    </p>
  </section>
</template>

<style scoped>
.one { display: grid; grid-template-columns: auto auto auto minmax(0, 1fr); gap: var(--space-5); align-items: baseline; width: 100%; text-align: left; border: 0; border-top: 1px solid var(--rule); background: none; padding: var(--space-2) var(--space-1); cursor: pointer; }
.one:hover { background: var(--hover); }
.words { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
</style>

<script setup lang="ts">
import type { Holdings, SetUpColleague, SetUpPeople } from '~~/shared/people'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'

/** Somebody leaves: what is theirs, and who gets it. */
const { person, others } = defineProps<{ person: SetUpColleague, others: SetUpColleague[] }>()
const me = useMe()
const emit = defineEmits<{ left: [people: SetUpPeople], close: [] }>()

const { found: holdings, problem, load } = useLoaded<Holdings>(`/api/set-up/people/${person.id}/holdings`)
const theirs = computed(() => {
  if (!holdings.value) return []
  const { records, lines, conversations, tasks, templates, bulkTexts, rounds } = holdings.value
  return [
    records > 0 && many(records, 'record', 'records'),
    lines > 0 && many(lines, 'line of their own', 'lines of their own'),
    conversations > 0 && many(conversations, 'conversation that they have', 'conversations that they have'),
    tasks > 0 && many(tasks, 'open task', 'open tasks'),
    templates > 0 && many(templates, 'template', 'templates'),
    rounds > 0 && many(rounds, 'call round', 'call rounds'),
    bulkTexts > 0 && `${many(bulkTexts, 'bulk text', 'bulk texts')}, which go on in the other’s name`,
  ].filter(Boolean)
})
const toId = ref('')
/** There is nothing to be given to anybody: not even a scheduled text, or what comes in meanwhile. */
const nothing = computed(() => person.role === 'helper')
const { errors, saving, save } = useSaving('toId')
const leave = () => save(async () =>
  emit('left', await api<SetUpPeople>(`/api/set-up/people/${person.id}/leave`, { method: 'POST', body: { toId: nothing.value ? me.me!.id : toId.value } })))
</script>

<template>
  <Dialog
    visible
    modal
    :header="`${person.name} leaves`"
    :style="{ width: '32rem' }"
    @update:visible="emit('close')"
  >
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Look again"
      @again="load"
    />
    <p
      v-else-if="!holdings"
      class="quiet"
      role="status"
    >
      Looking what is theirs…
    </p>
    <form
      v-else
      class="form"
      novalidate
      @submit.prevent="leave"
    >
      <p v-if="theirs.length === 0">
        Nothing is theirs that anybody would miss.
      </p>
      <template v-else>
        <p>Goes to whom you choose:</p>
        <ul class="theirs">
          <li
            v-for="one in theirs"
            :key="String(one)"
          >
            {{ one }}
          </li>
        </ul>
      </template>
      <p
        v-if="holdings.scheduled > 0"
        class="notice"
      >
        {{ many(holdings.scheduled, 'text that they have scheduled leaves', 'texts that they have scheduled leave') }} as written.
      </p>
      <ChoiceField
        v-if="!nothing"
        id="leaves-to"
        v-model="toId"
        label="Who gets what is theirs"
        none="Choose"
        :choices="others.map(({ id, name }) => ({ value: id, label: name }))"
        :error="errors.toId"
      />
      <p class="quiet small">
        {{ person.name }} is signed out everywhere and can sign in no more. What they did stays theirs{{ nothing ? ' in the audit log' : ' on every timeline' }}.
      </p>
      <p>
        <Button
          type="submit"
          :label="`Let ${person.name} go`"
          :loading="saving"
        />
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.theirs { padding-inline-start: var(--space-6); list-style: disc; }
</style>

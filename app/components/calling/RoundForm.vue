<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { RoundPreview } from '~~/shared/rounds'
import type { Whom } from '~~/shared/schemas/list'
import type { RoundMannerForm } from '~~/shared/schemas/round'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { useRounds } from '~/stores/rounds'
import { many } from '~/words/count'
import { sayPassed } from '~/words/rounds'
import { shortDay } from '~/words/time'

/** Makes a call round of the people that are chosen, and says first who would be called and who passed over. */
const { whom, called } = defineProps<{ whom: Whom, /** What they are called, for a name that can be changed. */ called: string }>()
const emit = defineEmits<{ close: [] }>()
const me = useMe().me!
const rounds = useRounds()

const id = uuid()
const manner = ref<RoundMannerForm>({
  name: `${called}, ${shortDay(Date.now(), me.zone)}`,
  order: 'local-time',
  pauseSeconds: null,
  notWithinHours: 24,
})
/** A list that drops down shows no choice whose value is nothing. */
const ALONE = 'alone'
const teams = [...me.teams.map(team => ({ value: team.id, label: team.name })), { value: ALONE, label: 'I alone' }]
const worksIt = ref(teams[0]!.value)
const preview = shallowRef<RoundPreview | null>(null)
const { errors, saving, save } = useSaving('selection')

watch(() => manner.value.notWithinHours, notWithinHours => save(async () => {
  preview.value = await api<RoundPreview>('/api/rounds/preview', { method: 'POST', body: { ...whom, notWithinHours } })
}), { immediate: true })
const passed = computed(() => preview.value ? sayPassed(preview.value.passed) : '')

const make = (begin: boolean) => save(async () => {
  await api('/api/rounds', {
    method: 'POST',
    body: { id, ...whom, teamId: worksIt.value === ALONE ? null : worksIt.value, ...manner.value },
  })
  emit('close')
  if (begin) await rounds.next(id)
  if (!begin || !rounds.mine?.inHand) await navigateTo(`/calling/${id}`)
})
</script>

<template>
  <Dialog
    visible
    modal
    header="Call them in a round"
    :style="{ width: '34rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="make(true)"
    >
      <p
        class="who"
        role="status"
      >
        <template v-if="preview">
          <strong class="figures">{{ many(preview.callable, 'person', 'people') }} can be called now.</strong>
          <span
            v-if="passed"
            class="quiet"
          > Skipped for now: {{ passed }}.</span>
        </template>
        <span
          v-else-if="!errors.selection"
          class="quiet"
        >Checking who can be called…</span>
      </p>
      <p
        v-if="errors.selection"
        class="notice failed"
        role="alert"
      >
        {{ errors.selection }}
      </p>
      <RoundMannerFields
        v-model="manner"
        :errors="errors"
      >
        <LabelledField
          id="round-team"
          v-slot="{ choice }"
          label="Who works it"
          :error="errors.teamId"
        >
          <Select
            v-bind="choice"
            v-model="worksIt"
            :options="teams"
            option-value="value"
            option-label="label"
          />
        </LabelledField>
      </RoundMannerFields>
      <p class="acts">
        <Button
          type="submit"
          label="Start with the first"
          :loading="saving"
          :disabled="!preview || preview.chosen === 0"
        />
        <button
          type="button"
          class="plain-button"
          :disabled="saving || !preview || preview.chosen === 0"
          @click="make(false)"
        >
          Save it, start later
        </button>
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.acts { display: flex; gap: var(--space-7); align-items: center; }
</style>

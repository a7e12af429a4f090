<script setup lang="ts">
import type { RoundDetail } from '~~/shared/rounds'
import type { RoundMannerForm } from '~~/shared/schemas/round'
import { api, ApiProblem } from '~/composables/api'

/** Changes how a round goes from here on. */
const { round } = defineProps<{ round: RoundDetail }>()
const emit = defineEmits<{ saved: [], close: [] }>()

const { name, order, pauseSeconds, notWithinHours } = round
const form = ref<RoundMannerForm>({ name, order, pauseSeconds, notWithinHours })
const errors = ref<Record<string, string>>({})
const saving = ref(false)

async function save(): Promise<void> {
  saving.value = true
  try {
    await api(`/api/rounds/${round.id}`, { method: 'PUT', body: form.value })
    emit('saved')
  }
  catch (problem) {
    if (!(problem instanceof ApiProblem)) throw problem
    errors.value = Object.keys(problem.fields).length > 0 ? problem.fields : { name: problem.message }
  }
  saving.value = false
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="`How “${round.name}” goes`"
    :style="{ width: '34rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="save"
    >
      <RoundMannerFields
        v-model="form"
        :errors="errors"
      />
      <p>
        <Button
          type="submit"
          label="Save"
          :loading="saving"
        />
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: 0.9rem; }
</style>

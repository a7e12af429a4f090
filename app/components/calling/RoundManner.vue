<script setup lang="ts">
import type { RoundDetail } from '~~/shared/rounds'
import type { RoundMannerForm } from '~~/shared/schemas/round'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'

/** Changes how a round goes from here on. */
const { round } = defineProps<{ round: RoundDetail }>()
const emit = defineEmits<{ saved: [], close: [] }>()

const { name, order, pauseSeconds, notWithinHours } = round
const form = ref<RoundMannerForm>({ name, order, pauseSeconds, notWithinHours })
const { errors, saving, save: saveWith } = useSaving('name')

const save = () => saveWith(async () => {
  await api(`/api/rounds/${round.id}`, { method: 'PUT', body: form.value })
  emit('saved')
})
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
.form { display: grid; gap: var(--space-5); }
</style>

<script setup lang="ts">
import { showPhone } from '~~/core/phone/show'
import type { RecordPhone } from '~~/shared/record'
import { api, ApiProblem } from '~/composables/api'

/** A colleague writes into a number's ledger what the person said. */
const { phone, agrees, proposalId = null } = defineProps<{ phone: RecordPhone, agrees: boolean, proposalId?: string | null }>()
const emit = defineEmits<{ done: [], close: [] }>()
const words = ref('')
const error = ref('')
const saving = ref(false)

async function save(): Promise<void> {
  saving.value = true
  error.value = ''
  try {
    await api(`/api/numbers/${phone.id}/consent`, { method: 'POST', body: { agrees, words: words.value, proposalId } })
    emit('done')
  }
  catch (problem) {
    if (!(problem instanceof ApiProblem)) throw problem
    error.value = problem.fields.words ?? problem.message
  }
  finally {
    saving.value = false
  }
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="agrees ? 'Said yes to texts' : 'Wants no texts'"
    :style="{ width: '26rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      @submit.prevent="save"
    >
      <p>
        <template v-if="agrees">
          It goes into the ledger of {{ showPhone(phone.e164!) }}.
        </template>
        <template v-else>
          From then on no text leaves for {{ showPhone(phone.e164!) }}, from any line. Only the person can take it back, by texting START.
        </template>
      </p>
      <LabelledField
        id="consent-words"
        v-slot="{ input }"
        :label="`What was said${proposalId ? ', if there is more than the text' : ''}`"
        :error="error"
      >
        <Textarea
          v-bind="input"
          v-model="words"
          rows="2"
          autofocus
        />
      </LabelledField>
      <Button
        type="submit"
        :label="agrees ? 'Write it down' : 'Opt this number out'"
        :loading="saving"
      />
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: 1rem; }
</style>

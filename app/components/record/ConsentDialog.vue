<script setup lang="ts">
import { showPhone } from '~~/core/phone/show'
import type { RecordPhone } from '~~/shared/record'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** A colleague writes into a number's ledger what the person said. */
const { phone, agrees, covers = 'texts', proposalId = null } = defineProps<{
  phone: RecordPhone
  agrees: boolean
  covers?: 'texts' | 'calls'
  proposalId?: string | null
}>()
const emit = defineEmits<{ done: [], close: [] }>()
const words = ref('')
const { problem: error, busy: saving, trying } = useTrying()

async function save(): Promise<void> {
  if (await trying(() => api(`/api/numbers/${phone.id}/consent`, { method: 'POST', body: { agrees, covers, words: words.value, proposalId } })))
    emit('done')
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="`${agrees ? 'Consent to' : 'Opt out of'} ${covers}`"
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
        <template v-else-if="covers === 'calls'">
          From then on nobody calls {{ showPhone(phone.e164!) }}, and no call round offers it, until consent to calls is recorded again.
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
        :label="agrees ? 'Record consent' : 'Opt this number out'"
        :loading="saving"
      />
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-6); }
</style>

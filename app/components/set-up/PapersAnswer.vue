<script setup lang="ts">
import type { PapersWord } from '~~/core/papers/papers'
import type { PapersFront, Registration } from '~~/shared/papers'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { withWhom } from '~/words/papers'

/** What a carrier has said of papers that were brought to it. */
const { registration } = defineProps<{ registration: Registration }>()
const emit = defineEmits<{ changed: [front: PapersFront], close: [] }>()

const ANSWERS: { kind: PapersWord, label: string }[] = [
  { kind: 'accepted', label: 'They are accepted' },
  { kind: 'asked-back', label: 'They ask something' },
  { kind: 'refused', label: 'They refuse them' },
]
const form = ref({ kind: 'accepted' as PapersWord, words: '', ref: registration.ref ?? '' })
const { errors, saving, save } = useSaving('words')
const keep = () => save(async () => emit('changed', await api<PapersFront>(`/api/set-up/papers/registrations/${registration.id}`, {
  method: 'PUT', body: { ...form.value, ref: form.value.ref || null },
})))
</script>

<template>
  <FormDialog
    :header="withWhom(registration)"
    width="30rem"
    :written="form"
    @close="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="keep"
    >
      <fieldset class="choices">
        <legend>What they say</legend>
        <label
          v-for="{ kind, label } in ANSWERS"
          :key="kind"
        ><input
          v-model="form.kind"
          type="radio"
          name="answer"
          :value="kind"
        > {{ label }}</label>
      </fieldset>
      <LabelledField
        id="answer-words"
        v-slot="{ input }"
        :label="form.kind === 'accepted' ? 'In their words, if they say more' : 'In their words'"
        :error="errors.words"
      >
        <Textarea
          v-bind="input"
          v-model="form.words"
          rows="3"
        />
      </LabelledField>
      <LabelledField
        id="answer-ref"
        v-slot="{ input }"
        label="Under which they know them, if under anything"
        :error="errors.ref"
      >
        <InputText
          v-bind="input"
          v-model="form.ref"
          autocomplete="off"
        />
      </LabelledField>
      <p>
        <Button
          type="submit"
          label="Save"
          :loading="saving"
        />
      </p>
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.choices { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-3); }
.choices legend { padding: 0 0 var(--space-2); }
.choices label { display: flex; gap: var(--space-3); align-items: center; min-height: 24px; cursor: pointer; }
</style>

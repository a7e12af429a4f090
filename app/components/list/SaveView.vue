<script setup lang="ts">
import { v7 as uuid } from 'uuid'

/** Asks what a view is to be called, and whether the team sees it too. */
const { header, example, problem } = defineProps<{ header: string, example: string, problem: string }>()
const emit = defineEmits<{ save: [view: { id: string, name: string, shared: boolean }], close: [] }>()

/** Saving once more after a failure is the same view. */
const id = uuid()
const name = ref('')
const shared = ref(false)
</script>

<template>
  <Dialog
    visible
    modal
    :header="header"
    :style="{ width: '24rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      @submit.prevent="emit('save', { id, name, shared })"
    >
      <LabelledField
        id="view-name"
        v-slot="{ input }"
        label="Name"
        :error="problem"
      >
        <InputText
          v-bind="input"
          v-model="name"
          :placeholder="example"
          autocomplete="off"
          autofocus
        />
      </LabelledField>
      <label class="share">
        <input
          v-model="shared"
          type="checkbox"
        >
        My team sees it too
      </label>
      <Button
        type="submit"
        label="Save"
      />
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.share { display: flex; gap: var(--space-3); align-items: baseline; }
.share input { accent-color: var(--accent); }
</style>

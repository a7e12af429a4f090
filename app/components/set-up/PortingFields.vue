<script setup lang="ts">
import type { PortingForm } from '~~/shared/schemas/line'

/** What a carrier has to know of a number that another one has. */
const form = defineModel<PortingForm>({ required: true })
defineProps<{ errors: Record<string, string> }>()
</script>

<template>
  <div class="pair">
    <LabelledField
      id="porting-from"
      v-slot="{ input }"
      label="The carrier that has it"
      :error="errors.from ?? errors['brings.from']"
    >
      <InputText
        v-bind="input"
        v-model="form.from"
        autocomplete="off"
      />
    </LabelledField>
    <LabelledField
      id="porting-account"
      v-slot="{ input }"
      label="The number of your account there"
      :error="errors.account ?? errors['brings.account']"
    >
      <InputText
        v-bind="input"
        v-model="form.account"
        autocomplete="off"
      />
    </LabelledField>
  </div>
  <LabelledField
    id="porting-day"
    v-slot="{ input }"
    label="Not before, if any day is better than others"
    :error="errors.wishedDay ?? errors['brings.wishedDay']"
  >
    <DayField
      v-bind="input"
      v-model="form.wishedDay"
    />
  </LabelledField>
  <p class="quiet small">
    Until the day that is agreed it works where it is: end nothing there. It ends there by itself when it has come.
  </p>
</template>

<style scoped>
.pair { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-5); align-items: start; }
@media (max-width: 500px) { .pair { grid-template-columns: minmax(0, 1fr); } }
</style>

<script setup lang="ts">
import { PhChatCenteredText } from '@phosphor-icons/vue'
import type { LineChoice } from '~~/shared/composer'
import type { Choice, LineOption } from '~/words/choices'

/** To which number, from which line, and why that one. */
const { numbers, lines, line, why } = defineProps<{ numbers: Choice[], lines: LineOption[], line: LineChoice | null, why: string | null }>()
const phoneId = defineModel<string | null>('phoneId', { required: true })
const lineId = defineModel<string | null>('lineId', { required: true })
</script>

<template>
  <div class="head">
    <PhChatCenteredText
      size="18"
      aria-hidden="true"
    />
    <strong>Text</strong>
    <span
      id="to-label"
      class="quiet"
    >to</span>
    <Select
      v-model="phoneId"
      class="bare"
      :options="numbers"
      option-value="id"
      option-label="label"
      option-disabled="disabled"
      placeholder="no number to text"
      aria-labelledby="to-label"
      :disabled="numbers.length === 0"
    >
      <template #option="{ option }">
        <span>{{ option.label }} <span class="small quiet">{{ option.note }}</span></span>
      </template>
    </Select>
    <span
      id="from-label"
      class="quiet"
    >from</span>
    <Select
      v-model="lineId"
      class="bare"
      :options="lines"
      option-value="id"
      option-label="label"
      option-disabled="disabled"
      placeholder="no line for this number"
      aria-labelledby="from-label"
    >
      <template #option="{ option }">
        <span>{{ option.label }} <span class="small quiet">{{ option.note }}</span></span>
      </template>
    </Select>
    <span
      v-if="line"
      class="quiet answered"
    ><template v-if="why">{{ why }}, </template>answered by {{ line.answeredBy === 1 ? 'you' : `${line.answeredBy} of you` }}</span>
  </div>
</template>

<style scoped>
.head { display: flex; flex-wrap: wrap; align-items: center; gap: var(--space-2); padding: var(--space-2) var(--space-5); border-bottom: 1px solid var(--rule); }
.bare { border-color: transparent; background: none; }
.bare :deep(.p-select-label) { padding: var(--space-1) var(--space-hair) var(--space-1) var(--space-2); font-weight: 700; color: var(--ink); }
.bare :deep(.p-select-dropdown) { width: 1.5rem; }
.answered { margin-left: auto; }
</style>

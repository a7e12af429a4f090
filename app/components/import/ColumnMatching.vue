<script setup lang="ts">
import { takesSeveral, type ImportTarget, type Matching } from '~~/core/import/targets'
import type { OpenedFile } from '~/workers/import-file'

/** What each column of the file becomes, beside what stands in it. */
const { file, targets } = defineProps<{ file: OpenedFile, targets: ImportTarget[] }>()
const matching = defineModel<Matching>({ required: true })

const LEFT_OUT = 'left-out'
const optionsFor = (index: number) => [
  { key: LEFT_OUT, label: 'leave this column out' },
  ...targets.filter(target => takesSeveral(target) || matching.value[index] === target.key || !matching.value.includes(target.key)),
]
const samples = (index: number) => [...new Set(file.samples.map(row => row[index]).filter(Boolean))].slice(0, 3).join(' · ')

function set(index: number, key: string): void {
  matching.value = matching.value.map((before, i) => i === index ? (key === LEFT_OUT ? null : key) : before)
}
</script>

<template>
  <table class="columns">
    <thead>
      <tr><th>Column of the file</th><th>What stands in it</th><th>Becomes</th></tr>
    </thead>
    <tbody>
      <tr
        v-for="(heading, index) in file.headings"
        :key="index"
        :class="{ out: matching[index] === null }"
      >
        <td :id="`heading-${index}`">
          {{ heading }}
        </td>
        <td class="quiet sample">
          {{ samples(index) }}
        </td>
        <td>
          <Select
            class="becomes"
            :model-value="matching[index] ?? LEFT_OUT"
            :options="optionsFor(index)"
            option-value="key"
            option-label="label"
            :aria-labelledby="`heading-${index}`"
            @update:model-value="set(index, $event)"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.columns { width: 100%; border-collapse: collapse; table-layout: fixed; }
th { text-align: left; font-weight: 400; font-size: var(--size-small); color: var(--quiet); padding-bottom: var(--space-1); }
th:nth-child(1) { width: 26%; }
th:nth-child(3) { width: 14rem; }
td { border-top: 1px solid var(--rule); padding: var(--space-1) var(--space-4) var(--space-1) 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.out td:first-child { color: var(--quiet); text-decoration: line-through; }
.becomes { width: 100%; border-color: transparent; background: none; }
.becomes:hover, .becomes:focus-within { border-color: var(--field-rule); }
.becomes :deep(.p-select-label) { padding: var(--space-hair) var(--space-2); font-weight: 700; }
.out .becomes :deep(.p-select-label) { font-weight: 400; color: var(--quiet); }
</style>

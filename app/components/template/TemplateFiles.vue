<script setup lang="ts">
import type { TemplateDetail } from '~~/shared/template'
import { takeTemplatesIn, templatesAsFile, type TakenIn } from '~/composables/template-files'

/** Templates as a file: those that are found taken out, others brought in. */
const { found } = defineProps<{ found: TemplateDetail[] }>()
const emit = defineEmits<{ takenIn: [] }>()
const file = useTemplateRef<HTMLInputElement>('file')
const takenIn = shallowRef<TakenIn | null>(null)
const problem = ref('')

function takeOut(): void {
  const link = Object.assign(document.createElement('a'), {
    href: URL.createObjectURL(templatesAsFile(found)),
    download: 'templates.json',
  })
  link.click()
  URL.revokeObjectURL(link.href)
}

async function bringIn(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const given = field.files?.[0]
  field.value = problem.value = ''
  takenIn.value = null
  if (!given) return
  try {
    takenIn.value = await takeTemplatesIn(given)
    emit('takenIn')
  }
  catch (error) {
    problem.value = error instanceof Error ? error.message : ''
  }
}
</script>

<template>
  <div class="files small">
    <button
      type="button"
      class="plain-button calm"
      :disabled="found.length === 0"
      @click="takeOut"
    >
      Export as JSON
    </button>
    <button
      type="button"
      class="plain-button calm"
      @click="file?.click()"
    >
      Import JSON
    </button>
    <input
      ref="file"
      type="file"
      accept="application/json,.json"
      class="heard-only"
      tabindex="-1"
      aria-label="File of templates"
      @change="bringIn"
    >
    <p
      v-if="problem"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
    <div
      v-if="takenIn"
      role="status"
    >
      <p>{{ takenIn.taken }} imported, for you alone until you share them.</p>
      <p
        v-for="(one, place) in takenIn.refused"
        :key="place"
        class="field-error"
      >
        {{ one.name }}: {{ one.reason }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.files { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); padding: var(--space-2) 0; }
</style>

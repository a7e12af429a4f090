<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { measureText } from '~~/core/text/measure'
import type { FilledTemplate } from '~~/shared/template'
import { api, ApiProblem } from '~/composables/api'

/** The templates of this record's module, each filled for this person before it is chosen. */
const { recordId } = defineProps<{ recordId: string }>()
const emit = defineEmits<{ pick: [template: FilledTemplate], close: [] }>()

const panel = useTemplateRef<HTMLElement>('panel')
const field = useTemplateRef<HTMLInputElement>('field')
const templates = shallowRef<FilledTemplate[] | null>(null)
const problem = ref('')
const words = ref('')
const at = ref(0)

const found = computed(() => templates.value?.filter(({ name, text }) => `${name} ${text ?? ''}`.toLowerCase().includes(words.value.trim().toLowerCase())) ?? [])
const current = computed(() => found.value[at.value])
watch(words, () => at.value = 0)

onMounted(async () => {
  field.value?.focus()
  try {
    templates.value = await api<FilledTemplate[]>(`/api/records/${recordId}/templates`)
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error.message
  }
})
onClickOutside(panel, () => emit('close'))

function onKey(event: KeyboardEvent): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) at.value = Math.min(found.value.length - 1, Math.max(0, at.value + step))
  else if (event.key === 'Enter') pick()
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
  event.stopPropagation()
}

function pick(): void {
  if (current.value?.text) emit('pick', current.value)
}
</script>

<template>
  <section
    ref="panel"
    class="template-picker"
    role="dialog"
    aria-label="Choose a template"
    @keydown="onKey"
  >
    <div class="choose">
      <label
        for="template-words"
        class="heard-only"
      >Find a template</label>
      <input
        id="template-words"
        ref="field"
        v-model="words"
        class="words"
        placeholder="Find a template"
        role="combobox"
        aria-expanded="true"
        aria-controls="template-list"
        :aria-activedescendant="current ? `template-${current.id}` : undefined"
        autocomplete="off"
      >
      <p
        v-if="problem"
        class="notice failed"
      >
        {{ problem }}
      </p>
      <p
        v-else-if="!templates"
        class="quiet pad"
      >
        Filling the templates…
      </p>
      <p
        v-else-if="templates.length === 0"
        class="quiet pad"
      >
        This module has no templates yet. <NuxtLink to="/templates">
          Make the first
        </NuxtLink>
      </p>
      <p
        v-else-if="found.length === 0"
        class="quiet pad"
      >
        No template has these words.
      </p>
      <ul
        id="template-list"
        role="listbox"
        aria-label="Templates"
        class="list"
      >
        <!-- the field above carries the keys -->
        <li
          v-for="(template, index) in found"
          :id="`template-${template.id}`"
          :key="template.id"
          role="option"
          class="option"
          :class="{ current: index === at, held: !template.text }"
          :aria-selected="index === at"
          :aria-disabled="!template.text"
          @click="at = index; pick()"
          @mousemove="at = index"
        >
          {{ template.name }}
          <span
            v-if="!template.text"
            class="small missing"
          >missing: {{ template.missing.join(', ') }}</span>
        </li>
      </ul>
    </div>
    <div
      class="preview"
      aria-live="polite"
    >
      <template v-if="current?.text">
        <p class="filled">
          {{ current.text }}
        </p>
        <p class="small quiet figures">
          {{ measureText(current.text).units }} units, {{ measureText(current.text).parts === 1 ? '1 part' : `${measureText(current.text).parts} parts` }}
        </p>
        <p class="small quiet">
          <kbd>Enter</kbd> takes it, you can still change it
        </p>
      </template>
      <p
        v-else-if="current"
        class="notice"
      >
        {{ current.missing.join(', ') }}: empty on this record, and the template has no stand-in. Fill it in on the record, then this template can be used.
      </p>
    </div>
  </section>
</template>

<style scoped>
.template-picker { position: absolute; z-index: 12; left: 0; right: 0; top: 100%; display: grid; grid-template-columns: minmax(14rem, 2fr) 3fr; background: var(--surface); border: 1px solid var(--ink); border-radius: 0 0 8px 8px; min-height: 15rem; animation: open-down var(--move); }
@keyframes open-down { from { opacity: 0; transform: translateY(-4px); } }
.choose { border-right: 1px solid var(--rule); min-width: 0; }
.words { width: 100%; border: 0; border-bottom: 1px solid var(--rule); background: none; padding: 0.6rem 0.9rem; }
.words:focus-visible { outline-offset: -2px; }
.list { max-height: 15rem; overflow-y: auto; padding: 0.25rem 0; }
.option { padding: 0.4rem 0.9rem; cursor: pointer; display: grid; border-left: 3px solid transparent; }
.option.current { background: var(--mulberry-ground); border-left-color: var(--mulberry); }
.option.held { color: var(--quiet); cursor: default; }
.missing { color: var(--saffron); }
.preview { padding: 0.9rem; display: grid; gap: 0.5rem; align-content: start; }
.filled { white-space: pre-wrap; font-size: var(--size-text); border-left: 3px solid var(--mulberry); padding-left: 0.75rem; }
.pad { padding: 0.6rem 0.9rem; }
@media (max-width: 700px) { .template-picker { grid-template-columns: 1fr; } .choose { border-right: 0; } }
</style>

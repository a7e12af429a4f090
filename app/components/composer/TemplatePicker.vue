<script setup lang="ts">
import { PhStar } from '@phosphor-icons/vue'
import { onClickOutside } from '@vueuse/core'
import { measureText } from '~~/core/text/measure'
import { MODULE_FACTS } from '~~/shared/modules'
import type { FilledTemplate } from '~~/shared/template'
import { useFilledTemplates } from '~/composables/filled-templates'
import { calendarDay } from '~/words/time'

/** The templates of this record's module, each filled for this person before it is chosen: favourites first, then what I use. */
const { at: address, reference, written = false } = defineProps<{
  /** Where they are, filled for somebody. */
  at: string
  reference: string
  /** Whether something is written already: a template goes in at the cursor, or in place of it. */
  written?: boolean
}>()
const emit = defineEmits<{ pick: [template: FilledTemplate, instead: boolean], close: [] }>()

const panel = useTemplateRef<HTMLElement>('panel')
const field = useTemplateRef<HTMLInputElement>('field')
const { templates, contexts, aboutId, problem, fill, favour } = useFilledTemplates(address, reference)
const words = ref('')
const at = ref(0)
/** The one whose fill-ins are being filled in. */
const asking = ref(false)

/** As many are drawn: nobody reads further, and every key stays quick. */
const MOST = 80
const searched = computed(
  () =>
    templates.value?.map(template => ({ template, in: `${template.name} ${template.folder} ${template.text ?? ''}`.toLowerCase() })) ?? [],
)
const matching = computed(() => {
  const typed = words.value.trim().toLowerCase()
  return searched.value.filter(one => one.in.includes(typed)).map(({ template }) => template)
})
const found = computed(() => matching.value.slice(0, MOST))
const current = computed(() => found.value[at.value])
const length = computed(() => current.value?.text ? measureText(current.value.text) : null)
const abouts = computed(() =>
  contexts.value.map(({ id, module, name, day, over }) => ({
    id,
    label: [`${MODULE_FACTS[module].one}: ${name}`, day && calendarDay(day), over && 'over'].filter(Boolean).join(', '),
  })),
)
watch([words, aboutId], () => {
  at.value = 0
  asking.value = false
})

onMounted(() => field.value?.focus())
onClickOutside(panel, () => emit('close'))

function onKey(event: KeyboardEvent): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step && event.target === field.value) at.value = Math.min(found.value.length - 1, Math.max(0, at.value + step))
  else if (event.key === 'Enter' && event.target === field.value) pick(event.shiftKey)
  else if (event.key === 'Escape') emit('close')
  else return
  event.preventDefault()
  event.stopPropagation()
}

/** Whether it is to stand in place of what is written. */
let instead = false
function pick(inPlace = false): void {
  if (!current.value?.text) return
  instead = inPlace
  if (current.value.fillIns.length > 0) asking.value = true
  else emit('pick', current.value, instead)
}

function choose(index: number): void {
  at.value = index
  asking.value = false
  pick()
}

function back(): void {
  asking.value = false
  field.value?.focus()
}
watch(at, index => document.getElementById(`template-${found.value[index]?.id}`)?.scrollIntoView({ block: 'nearest' }))
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
        v-else-if="found.length === 0"
        class="quiet pad"
      >
        <template v-if="templates.length === 0">
          This module has no templates yet. <NuxtLink to="/templates">
            Write the first one
          </NuxtLink>
        </template>
        <template v-else>
          No template has these words.
        </template>
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
          @click="choose(index)"
          @mousemove="asking || (at = index)"
        >
          <span><PhStar
            v-if="template.favourite"
            size="14"
            weight="fill"
            class="star"
            aria-label="Favourite"
          /> {{ template.name }}</span>
          <span
            v-if="!template.text"
            class="small missing"
          >missing: {{ template.missing.join(', ') }}</span>
          <span
            v-else-if="template.folder || template.description"
            class="small quiet"
          >{{ [template.folder, template.description].filter(Boolean).join(': ') }}</span>
        </li>
        <li
          v-if="matching.length > found.length"
          class="quiet small pad"
        >
          and {{ matching.length - found.length }} more; type a word of it
        </li>
      </ul>
    </div>
    <div class="preview">
      <label
        v-if="abouts.length > 0"
        class="about small quiet"
      >It is about <select
        v-model="aboutId"
        class="about-choice"
      >
        <option :value="null">
          what comes next of each kind
        </option>
        <option
          v-for="one in abouts"
          :key="one.id"
          :value="one.id"
        >
          {{ one.label }}
        </option>
      </select></label>
      <LazyFillInForm
        v-if="asking && current"
        :key="current.id"
        :template="current"
        :fill="fill"
        @filled="emit('pick', { ...current, text: $event }, instead)"
        @back="back"
      />
      <template v-else-if="current">
        <div
          class="seen"
          aria-live="polite"
        >
          <template v-if="current.text && length">
            <p class="filled">
              {{ current.text }}
            </p>
            <p class="small quiet figures">
              {{ length.units }} characters, {{ length.parts === 1 ? '1 part' : `${length.parts} parts` }}
            </p>
            <p class="small quiet">
              <kbd>Enter</kbd> {{ current.fillIns.length > 0 ? `asks for ${current.fillIns.map(one => one.label.toLowerCase()).join(', ')}` : written ? 'puts it where the cursor is' : 'takes it, you can still change it' }}
            </p>
            <p
              v-if="written"
              class="small quiet"
            >
              <kbd>Shift Enter</kbd>
              <button
                type="button"
                class="plain-button calm"
                @click="pick(true)"
              >
                puts it in place of what is written
              </button>; <kbd>Ctrl Z</kbd> brings that back
            </p>
          </template>
          <p
            v-else
            class="notice"
          >
            {{ current.missing.join(', ') }}: empty on this record, and the template has no stand-in. Fill it in on the record, then this template can be used.
          </p>
        </div>
        <button
          type="button"
          class="plain-button calm small"
          @click="favour(current)"
        >
          {{ current.favourite ? 'Remove from favourites' : 'Add to favourites' }}
        </button>
      </template>
    </div>
  </section>
</template>

<style scoped>
.template-picker { position: absolute; z-index: 12; left: 0; right: 0; top: 100%; display: grid; grid-template-columns: minmax(14rem, 2fr) 3fr; background: var(--surface); border: 1px solid var(--ink); border-radius: 0 0 8px 8px; min-height: 16rem; animation: open-down var(--move); }
@keyframes open-down { from { opacity: 0; transform: translateY(-4px); } }
.choose { border-right: 1px solid var(--rule); min-width: 0; }
.words { width: 100%; border: 0; border-bottom: 1px solid var(--rule); background: none; padding: var(--space-4) var(--space-5); }
.words:focus-visible { outline-offset: -2px; }
.list { max-height: 17rem; overflow-y: auto; padding: var(--space-1) 0; }
.option { padding: var(--space-2) var(--space-5); cursor: pointer; display: grid; border-left: 3px solid transparent; }
.option.current { background: var(--accent-ground); border-left-color: var(--accent); }
.option.held { color: var(--quiet); cursor: default; }
.option .quiet { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.star { color: var(--waiting); vertical-align: -1px; }
.missing { color: var(--waiting); }
.preview { padding: var(--space-4) var(--space-5) var(--space-5); display: grid; gap: var(--space-4); align-content: start; justify-items: start; min-width: 0; }
.preview > .fill-ins { width: 100%; }
.about { display: flex; align-items: center; gap: var(--space-2); max-width: 100%; }
.about-choice { border: 0; border-bottom: 1px solid var(--field-rule); background: none; color: var(--ink); padding: var(--space-hair) 0; min-width: 0; max-width: 20rem; }
.seen { display: grid; gap: var(--space-3); width: 100%; }
.filled { white-space: pre-wrap; font-size: var(--size-text); border-left: 3px solid var(--accent); padding-left: var(--space-5); }
.pad { padding: var(--space-4) var(--space-5); }
@media (max-width: 700px) { .template-picker { grid-template-columns: 1fr; } .choose { border-right: 0; } }
</style>

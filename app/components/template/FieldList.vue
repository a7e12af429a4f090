<script setup lang="ts">
import type { Field, FieldGroup } from '~~/core/template/fields'
import { GROUP_WORDS } from '~/words/template'

/** The fields to choose from, found by what is typed behind `{{`; the keys come from the editor. */
const { fields, query } = defineProps<{ fields: Field[], query: string }>()
const emit = defineEmits<{ choose: [field: Field] }>()

const MOST = 40
const at = ref(0)
const found = computed(() => {
  const words = query.trim().toLowerCase().split(/[\s.]+/).filter(Boolean)
  return fields
    .filter(({ label, path, group }) => words.every(word => `${label} ${path} ${GROUP_WORDS[group]}`.toLowerCase().includes(word)))
    .slice(0, MOST)
})
watch(() => query, () => at.value = 0)
const heads = (place: number): FieldGroup | null =>
  found.value[place]!.group === found.value[place - 1]?.group ? null : found.value[place]!.group

function onKey(event: KeyboardEvent): boolean {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step) at.value = (at.value + step + found.value.length) % Math.max(1, found.value.length)
  else if ((event.key === 'Enter' || event.key === 'Tab') && found.value[at.value]) emit('choose', found.value[at.value]!)
  else return false
  void nextTick(() => document.querySelector('.field-list .current')?.scrollIntoView({ block: 'nearest' }))
  return true
}
defineExpose({ onKey })
</script>

<template>
  <ul
    class="field-list"
    tabindex="0"
    role="listbox"
    aria-label="Fields"
  >
    <li
      v-if="found.length === 0"
      class="quiet none"
    >
      No field by that name.
    </li>
    <template
      v-for="(field, place) in found"
      :key="field.path"
    >
      <li
        v-if="heads(place)"
        class="small quiet head"
        role="presentation"
      >
        {{ GROUP_WORDS[heads(place)!] }}
      </li>
      <li
        role="option"
        class="one"
        :class="{ current: place === at }"
        :aria-selected="place === at"
        @mousedown.prevent="emit('choose', field)"
        @mousemove="at = place"
      >
        {{ field.label }} <span class="small quiet">{{ field.example }}</span>
      </li>
    </template>
  </ul>
</template>

<style scoped>
.field-list { width: 18rem; max-height: 18rem; overflow-y: auto; background: var(--surface); border: 1px solid var(--ink); border-radius: var(--round-large); padding: var(--space-2) 0; }
.head { padding: var(--space-2) var(--space-5) var(--space-hair); }
.one { display: flex; justify-content: space-between; gap: var(--space-6); padding: var(--space-1) var(--space-5); cursor: pointer; border-left: 3px solid transparent; }
.one .quiet { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.one.current { background: var(--accent-ground); border-left-color: var(--accent); }
.none { padding: var(--space-2) var(--space-5); }
</style>

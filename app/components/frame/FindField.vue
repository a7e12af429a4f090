<script setup lang="ts">
import { PhMagnifyingGlass } from '@phosphor-icons/vue'
import { LEAST, useFind, type Found, type Group } from '~/composables/find'
import { useKeys } from '~/composables/keys'

/** The field in the header: whoever, whatever was said, or something to do. */
const field = useTemplateRef<HTMLElement>('field')
const chosen = ref<Found | string | null>(null)
const { groups, empty, askEarly, find, enter, done } = useFind(go)
const input = () => field.value?.querySelector('input')

function onEnter(event: KeyboardEvent): void {
  if (!enter(input()?.value ?? '')) return
  event.preventDefault()
  event.stopPropagation()
}

function go(found: Found): void {
  chosen.value = null
  done()
  input()?.blur()
  found.act()
}

/** As it is heard. */
const inWords = ({ name, about }: Found) => [name, about].filter(Boolean).join(', ')

const focus = () => input()?.focus()
useKeys([
  { keys: '/', shown: '/', what: 'Find a person, a company, a number or a word', act: focus, everywhere: true },
  { keys: '$mod+k', shown: 'Ctrl K', what: 'Find or do something, from anywhere', act: focus, inFields: true },
])
</script>

<template>
  <search
    ref="field"
    class="find"
    @keydown.enter.capture="onEnter"
    @input.capture="askEarly(($event.target as HTMLInputElement).value)"
  >
    <PhMagnifyingGlass
      size="18"
      aria-hidden="true"
    />
    <AutoComplete
      v-model="chosen"
      input-id="find"
      :suggestions="groups"
      :option-label="inWords"
      option-group-label="label"
      option-group-children="items"
      placeholder="Find a person, a number, a word, or something to do"
      aria-label="Find a person, a number, a word, or something to do"
      :delay="0"
      :min-length="LEAST"
      :empty-search-message="empty"
      auto-option-focus
      scroll-height="32rem"
      class="find-input"
      @complete="find($event.query)"
      @option-select="go($event.value as Found)"
    >
      <template #optiongroup="{ option }">
        <span class="quiet small">{{ (option as Group).label }}</span>
      </template>
      <template #option="{ option }">
        <span class="found">
          <strong>{{ option.name }}</strong>
          <span class="quiet small about">{{ option.about }}</span>
        </span>
      </template>
    </AutoComplete>
    <kbd aria-hidden="true">/</kbd>
  </search>
</template>

<style scoped>
.find { display: flex; align-items: center; gap: var(--space-3); flex: 0 1 520px; border-bottom: 1px solid var(--quiet); color: var(--quiet); min-width: 0; }
.find-input { flex: 1; min-width: 0; }
.find :deep(input) { border: 0; background: none; width: 100%; padding-left: 0; box-shadow: none; }
.find:focus-within { border-color: var(--accent); box-shadow: 0 1px 0 var(--accent); }
.find :deep(input:focus-visible) { outline: none; }
.found { display: block; max-width: 31rem; white-space: normal; }
.about { margin-left: var(--space-3); }
@media (max-width: 480px) { .find kbd { display: none; } }
</style>

<script setup lang="ts">
import 'emoji-picker-element'
import data from 'emoji-picker-element-data/en/cldr/data.json?url'
import { onClickOutside, useRafFn } from '@vueuse/core'

/** Emoji by search and by sight; their names and pictures ship with Plauder. */
const emit = defineEmits<{ pick: [emoji: string], close: [] }>()
const panel = useTemplateRef<HTMLElement>('panel')
onClickOutside(panel, () => emit('close'))
const pick = (event: CustomEvent<{ unicode?: string }>) => event.detail.unicode && emit('pick', event.detail.unicode)

/** Its field comes once the names are there. */
const { pause } = useRafFn(() => {
  const search = panel.value?.querySelector('emoji-picker')?.shadowRoot?.querySelector<HTMLInputElement>('input')
  search?.focus()
  if (search) pause()
})
</script>

<template>
  <div
    ref="panel"
    class="emoji"
    role="dialog"
    aria-label="Choose an emoji"
    @keydown.esc.stop.prevent="emit('close')"
  >
    <!-- the element itself is a custom one, with its own list and search inside -->
    <emoji-picker
      class="picker"
      :data-source="data"
      @emoji-click="pick"
    />
  </div>
</template>

<style scoped>
.emoji { position: absolute; z-index: 13; left: 6rem; top: calc(100% - 0.3rem); border: 1px solid var(--ink); border-radius: var(--round-large); overflow: hidden; background: var(--surface); }
.picker { --background: var(--surface); --border-size: 0; --input-border-color: var(--field-rule); --input-font-color: var(--ink); --input-border-radius: var(--round); --input-placeholder-color: var(--quiet); --indicator-color: var(--accent); --category-font-color: var(--quiet); --button-hover-background: var(--hover); --button-active-background: var(--accent-ground); --outline-color: var(--accent); --num-columns: 9; --emoji-size: 1.2rem; --emoji-padding: 0.3rem; --input-font-size: var(--size); height: 17rem; width: 23rem; max-width: 90vw; }
</style>

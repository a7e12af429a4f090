<script setup lang="ts">
import { PhCalendarBlank } from '@phosphor-icons/vue'
import { dayAt } from '~~/core/hours/days'
import { readTypedDay } from '~~/core/hours/typed'
import { useNow } from '~/composables/now'
import { useTyped } from '~/composables/typed'
import { useMe } from '~/stores/me'
import { readersFormat } from '~/words/reader'
import { calendarDay } from '~/words/time'

/** A day, kept as `2026-12-03`: typed in any usual way and written as the reader writes days, or chosen from a calendar. */
const day = defineModel<string>({ required: true })
const { until } = defineProps<{ /** The last day that can be chosen. */ until?: string }>()
defineOptions({ inheritAttrs: false })

const me = useMe()
const now = useNow()
const today = computed(() => dayAt(me.me!.zone, now.value))
const { text, unreadable, isSaid, take, leave } = useTyped(day, {
  read(typed) {
    const read = readTypedDay(typed, readersFormat(), today.value)
    return read && until && read > until ? null : read
  },
  say: calendarDay,
})
const problem = computed(() => {
  if (!unreadable.value) return ''
  const such = calendarDay(until ?? today.value)
  return `“${text.value.trim()}” is not a day${until ? ` up to ${such}` : ''}. Write one such as ${such}, or “tomorrow”.`
})

const field = useTemplateRef<HTMLElement>('field')
const openAt = shallowRef<HTMLInputElement | null>(null)
const open = () => openAt.value = field.value?.querySelector('input') ?? null
function close(): void {
  openAt.value?.focus()
  openAt.value = null
}
</script>

<template>
  <span
    ref="field"
    class="day"
  >
    <TypedField
      v-bind="$attrs"
      :text="text"
      :problem="problem"
      :is-said="isSaid"
      size="15"
      aria-haspopup="dialog"
      title="↓ opens a calendar"
      @typed="take"
      @left="leave"
      @keydown.down.prevent="open"
    >
      <!-- for the mouse: by keyboard it is the arrow down, so that no form has another stop -->
      <button
        type="button"
        class="open"
        tabindex="-1"
        aria-hidden="true"
        @click.prevent="open"
      >
        <PhCalendarBlank size="18" />
      </button>
    </TypedField>
    <LazyMonthSheet
      v-if="openAt"
      v-model="day"
      :at="openAt"
      :until="until"
      @close="close"
    />
  </span>
</template>

<style scoped>
.day { display: contents; }
.open { position: absolute; right: var(--space-2); border: 0; background: none; color: var(--quiet); cursor: pointer; padding: var(--space-1); line-height: 0; }
.open:hover { color: var(--ink); }
.day :deep(.line > input) { padding-right: var(--space-9); }
</style>

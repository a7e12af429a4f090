<script setup lang="ts">
import { isGroup, type Condition, type Conditions } from '~~/core/conditions/conditions'
import type { ListColumn } from '~~/shared/list'
import { joining, sayCondition } from '~/words/conditions'

/** Conditions as a sentence, in which each part can be pressed to be changed. Groups stand in brackets. */
const { conditions, columns, nested = false } = defineProps<{ conditions: Conditions, columns: ListColumn[], nested?: boolean }>()
const emit = defineEmits<{ change: [conditions: Conditions] }>()

/**
 * The place that is being written, or was last; one past the end is a new condition. It stays when the form closes:
 * closing takes a moment, and the next may be open by then.
 */
const editing = ref<number | null>(null)
const popover = useTemplateRef<{ show: (event: Event) => void, hide: () => void }>('popover')
const current = computed(() => editing.value === null ? null : conditions.of[editing.value] as Condition | undefined)

function edit(place: number, event: Event): void {
  editing.value = place
  popover.value?.show(event)
}

function put(place: number, one: Condition | Conditions | null): void {
  const of = [...conditions.of]
  of.splice(place, place < of.length ? 1 : 0, ...(one ? [one] : []))
  emit('change', { ...conditions, of: of.filter(part => !isGroup(part) || part.of.length > 0) })
}

function done(condition: Condition | null): void {
  put(editing.value!, condition)
  popover.value?.hide()
}

const turnAround = () => emit('change', { ...conditions, match: conditions.match === 'all' ? 'any' : 'all' })
/** One condition becomes a bracket, into which a second one can be put. */
const bracket = (place: number) => put(place, { match: conditions.match === 'all' ? 'any' : 'all', of: [conditions.of[place]!] })
</script>

<template>
  <span class="sentence">
    <template
      v-for="(one, place) in conditions.of"
      :key="place"
    >
      <button
        v-if="place > 0"
        type="button"
        class="joining"
        :title="`Match ${conditions.match === 'all' ? 'any of these' : 'all of these'} instead`"
        @click="turnAround"
      >
        {{ joining(conditions.match) }}
      </button>
      <template v-if="isGroup(one)">
        <span aria-hidden="true">(</span>
        <ConditionSentence
          :conditions="one"
          :columns="columns"
          nested
          @change="put(place, $event.of.length > 0 ? $event : null)"
        />
        <span aria-hidden="true">)</span>
      </template>
      <span
        v-else
        class="part"
      >
        <button
          type="button"
          class="words"
          title="Change this condition"
          @click="edit(place, $event)"
        >
          {{ sayCondition(one, columns) }}
        </button>
        <button
          type="button"
          class="away"
          :aria-label="`Remove: ${sayCondition(one, columns)}`"
          @click="put(place, null)"
        >
          ×
        </button>
        <button
          v-if="!nested"
          type="button"
          class="bracket quiet small"
          :aria-label="`Put in brackets: ${sayCondition(one, columns)}`"
          title="Put it in brackets, to say or within and"
          @click="bracket(place)"
        >
          ( )
        </button>
      </span>
    </template>
    <button
      type="button"
      class="plain-button add"
      @click="edit(conditions.of.length, $event)"
    >
      {{ conditions.of.length === 0 ? 'Add a condition' : `${joining(conditions.match)} …` }}
    </button>
    <Popover ref="popover">
      <LazyConditionForm
        v-if="editing !== null"
        :key="editing"
        :condition="current ?? null"
        :columns="columns"
        @done="done"
      />
    </Popover>
  </span>
</template>

<style scoped>
/* its parts flow with what stands before them on the line */
.sentence { display: contents; }
.part { display: inline-flex; align-items: baseline; border-bottom: 2px solid var(--accent); }
.words, .away, .joining, .bracket { border: 0; background: none; padding: 0; cursor: pointer; }
.words { font-weight: 700; }
.words:hover, .joining:hover { color: var(--accent); }
.away { color: var(--quiet); padding: 0 var(--space-2); }
.away:hover { color: var(--wrong); }
.bracket { padding-right: var(--space-1); }
.bracket:hover { color: var(--accent); }
.joining { color: var(--quiet); text-decoration: underline dotted; text-underline-offset: 3px; }
</style>

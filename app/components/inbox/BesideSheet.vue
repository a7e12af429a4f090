<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { scopeKeys, useKeys } from '~/composables/keys'

/** One of the conversations that lie side by side. Whichever has the cursor is the one whose keys work. */
const { conversationId, current, alone, kept, mayKeep, focused } = defineProps<{
  conversationId: string
  /** It is the one that is worked with. */
  current: boolean
  /** None lies beside it. */
  alone: boolean
  kept: boolean
  mayKeep: boolean
  focused: boolean
}>()
const emit = defineEmits<{ current: [], toggle: [], close: [], list: [] }>()

const sheet = useTemplateRef<HTMLElement>('sheet')
const conversation = useTemplateRef<{ title: string }>('conversation')
// by where the cursor is now: the address, which says which one is current, follows a moment later
const isTheOne = () => {
  const within = document.activeElement?.closest('.beside')
  return within ? within === sheet.value : current
}
scopeKeys(isTheOne)
useKeys([
  { keys: 'p', shown: 'P', what: 'Keep the conversation beside the next one', when: () => isTheOne() && (kept || mayKeep), act: () => emit('toggle') },
])

/** The newest is at the foot, over the composer. */
const toFoot = () => void nextTick(() => sheet.value && (sheet.value.scrollTop = sheet.value.scrollHeight))
// when one comes beside it, or goes, its lines break elsewhere
useResizeObserver(sheet, toFoot)
let isPointed = false
function point(): void {
  isPointed = !current
  emit('current')
}
// whoever goes to it by key writes in it; whoever points at something in it, to read or to copy, keeps the cursor there
watch(() => current, (now) => {
  const wasPointed = isPointed
  isPointed = false
  if (!now || sheet.value?.contains(document.activeElement)) return
  sheet.value?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  if (!alone && !wasPointed) sheet.value?.querySelector<HTMLElement>('textarea')?.focus()
})
</script>

<template>
  <section
    ref="sheet"
    class="beside"
    :class="{ current: current && !alone }"
    :aria-label="current ? 'The open conversation' : `Beside it the conversation with ${conversation?.title ?? ''}`"
    @focusin="emit('current')"
    @pointerdown="point"
  >
    <p class="tools small">
      <button
        type="button"
        class="plain-button calm"
        :aria-pressed="kept"
        :disabled="!kept && !mayKeep"
        @click="emit('toggle')"
      >
        {{ kept ? 'Kept beside' : 'Keep beside' }} <kbd v-if="current">P</kbd>
      </button>
      <button
        v-if="!alone"
        type="button"
        class="plain-button calm to-list"
        @click="emit('list')"
      >
        To the list
      </button>
      <button
        type="button"
        class="plain-button calm"
        @click="emit('close')"
      >
        Close <kbd v-if="current">Esc</kbd>
      </button>
    </p>
    <ConversationSheet
      ref="conversation"
      :conversation-id="conversationId"
      :focused="focused"
      sends="Send the answer"
      @shown="toFoot"
    />
  </section>
</template>

<style scoped>
.beside { overflow-y: auto; padding: var(--space-3) var(--space-7) var(--space-8); background: var(--surface); border-top: 3px solid transparent; border-right: 1px solid var(--rule); min-width: 0; }
.current { border-top-color: var(--accent); }
.tools { display: flex; justify-content: space-between; margin-bottom: var(--space-3); }
.tools [aria-pressed='true'] { font-weight: 700; }
/* where there is no room for the edge, which has it */
.to-list { display: none; }
@media (max-width: 900px) { .beside { padding-inline: var(--space-5); } .to-list { display: inline; } }
</style>

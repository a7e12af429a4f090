<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { useKeys } from '~/composables/keys'

/** A conversation, opened from the shelf over the page, which stays where it was. */
const { conversationId, position } = defineProps<{ conversationId: string, position: number }>()
const emit = defineEmits<{ close: [] }>()

const panel = useTemplateRef<HTMLElement>('panel')
const sheet = useTemplateRef<{ title: string }>('sheet')
const before = document.activeElement

/** Back to where the cursor was, on a page that did not move. */
function close(): void {
  emit('close')
  if (before instanceof HTMLElement) before.focus()
}

useKeys([{ keys: 'Escape', shown: 'Esc', what: 'Close the conversation', inFields: true, act: close }])
onClickOutside(panel, close, { ignore: ['.strip', '.p-select-overlay', '.p-dialog', '.p-dialog-mask', '.template-picker'] })
</script>

<template>
  <section
    ref="panel"
    class="panel"
    role="dialog"
    :aria-label="`Conversation with ${sheet?.title ?? ''}`"
    :style="{ '--position': position }"
  >
    <ConversationSheet
      ref="sheet"
      :conversation-id="conversationId"
      :newest="5"
      focused
      @sent="close"
      @settled="close"
      @left="emit('close')"
    >
      <template #foot>
        <button
          type="button"
          class="plain-button calm back"
          @click="close"
        >
          <kbd>Esc</kbd> puts it back
        </button>
      </template>
    </ConversationSheet>
  </section>
</template>

<style scoped>
.panel {
  position: absolute; top: 100%; left: clamp(0rem, calc(var(--position) * 13rem), calc(100vw - 84px - 31rem)); width: min(30rem, 100vw - 84px);
  max-height: calc(100vh - 110px); overflow-y: auto; background: var(--surface); border: 1px solid var(--ink); border-top: 0; border-radius: 0 0 8px 8px;
  padding: var(--space-6) var(--space-6); animation: open-down var(--move);
}
@keyframes open-down { from { opacity: 0; transform: translateY(-6px); } }
.back { margin-left: auto; }
@media (max-width: 700px) { .panel { left: 0; width: 100vw; } }
</style>

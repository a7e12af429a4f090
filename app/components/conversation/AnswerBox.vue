<script setup lang="ts">
import { isE164 } from '~~/core/phone/e164'
import type { ComposerStart } from '~~/shared/composer'
import type { ConversationDetail } from '~~/shared/shelf'
import { useConversationTarget } from '~/composables/target'

/** The composer as it is on the shelf and in the inbox, for an answer to one who waits. */
const { conversation, start, sends = 'Answer, and back', focused = true } = defineProps<{
  conversation: ConversationDetail
  start: ComposerStart
  sends?: string
  focused?: boolean
}>()
const emit = defineEmits<{ sent: [], writing: [writing: boolean] }>()

const id = useId()
const to = useConversationTarget(() => conversation, () => start)
const held = computed(() => {
  if (!isE164(conversation.remote)) return `${conversation.remote} is no telephone number: whoever sends under it takes no answers.`
  return conversation.optedOut ? 'This number has opted out, so no text leaves for it. Call instead.' : ''
})
</script>

<template>
  <p
    v-if="held"
    class="notice"
  >
    {{ held }}
  </p>
  <TextComposer
    v-else
    :to="to"
    :field-id="id"
    field="Answer"
    :sends="sends"
    hint="Write an answer"
    :focused="focused"
    @sent="emit('sent')"
    @writing="emit('writing', $event)"
  />
</template>

<script setup lang="ts">
import { isE164 } from '~~/core/phone/e164'
import type { ConversationDetail } from '~~/shared/shelf'
import { useComposer, type SendHow } from '~/composables/composer'
import { useGrowing } from '~/composables/growing'

/** The composer as it is on the shelf: small, for an answer to one who waits. */
const { conversation } = defineProps<{ conversation: ConversationDetail }>()
const emit = defineEmits<{ sent: [] }>()

const held = computed(() => {
  if (!isE164(conversation.remote)) return `${conversation.remote} is no telephone number: whoever sends under it takes no answers.`
  return conversation.optedOut ? 'This number has opted out, so no text leaves for it. Call instead.' : ''
})
const { text, measure, sending, problem, night, doubt, send } = useComposer(
  () => conversation.records[0] ? `record ${conversation.records[0].id}` : `conversation ${conversation.id}`,
  () => ({ lineId: conversation.lineId, phoneId: conversation.phone?.id ?? null, conversationId: conversation.id }),
  () => conversation.languages,
)
const { textarea } = useGrowing(text)
onMounted(() => textarea.value?.focus())

/** How it was to leave when something was asked about it. */
const asked = ref<SendHow>({})
async function go(how: SendHow = {}): Promise<void> {
  asked.value = how
  if (await send(how)) emit('sent')
}

function onKey(event: KeyboardEvent): void {
  if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void go()
}
</script>

<template>
  <div class="answer">
    <p
      v-if="held"
      class="notice"
    >
      {{ held }}
    </p>
    <template v-else>
      <label
        for="answer"
        class="heard-only"
      >Answer</label>
      <textarea
        id="answer"
        ref="textarea"
        v-model="text"
        class="text"
        placeholder="Write an answer"
        @keydown="onKey"
      />
      <p
        v-if="problem"
        class="notice failed"
        role="alert"
      >
        {{ Object.values(problem.fields)[0] ?? problem.message }}
      </p>
      <NightNotice
        v-if="night"
        :question="night"
        @send="go({ ...asked, nightAllowed: true })"
        @keep="night = null"
      />
      <DoubtNotice
        v-if="doubt"
        :question="doubt"
        @send="go({ ...asked, anyway: [...asked.anyway ?? [], doubt.doubt] })"
        @keep="doubt = null"
      />
      <div class="foot">
        <span class="quiet small figures">{{ measure.units }} units, {{ measure.parts === 1 ? '1 part' : `${measure.parts} parts` }}, from {{ conversation.lineName }}</span>
        <Button
          label="Answer, and back"
          size="small"
          :loading="sending"
          :disabled="text.trim() === ''"
          @click="go()"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.answer { border: 1px solid var(--field-rule); border-radius: var(--round-large); padding: var(--space-4) var(--space-5); }
.text { display: block; width: 100%; min-height: 2.8rem; max-height: 12rem; border: 0; background: none; resize: none; field-sizing: content; }
.text:focus-visible { outline: none; }
.text::placeholder { color: var(--quiet); opacity: 1; }
.foot { display: flex; justify-content: space-between; align-items: center; gap: var(--space-6); padding-top: var(--space-2); }
</style>

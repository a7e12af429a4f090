<script setup lang="ts">
import { PhChatCenteredText, PhClock, PhFloppyDisk, PhImage, PhNotePencil, PhSmiley } from '@phosphor-icons/vue'
import { useTextareaAutosize } from '@vueuse/core'
import type { WallMoment } from '~~/core/hours/schedule'
import { cautions } from '~~/core/message/cautions'
import type { ComposerStart } from '~~/shared/composer'
import { isPersonModule } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import type { FilledTemplate } from '~~/shared/template'
import { useComposer } from '~/composables/composer'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { usePictures } from '~/composables/pictures'
import { chooseLine, lineChoices, numberChoices } from '~/words/choices'
import { sayMoment } from '~/words/moments'

const { record, start } = defineProps<{ record: RecordDetail, start: ComposerStart }>()
const emit = defineEmits<{ sent: [activityId: string], writing: [writing: boolean] }>()

const numbers = computed(() => numberChoices(record.phones))
const phoneId = ref(numbers.value.find(choice => !choice.disabled)?.id ?? null)
const phone = computed(() => record.phones.find(one => one.id === phoneId.value) ?? null)
const lines = computed(() => lineChoices(start.lines, phone.value?.country ?? null))
const lineId = ref<string | null>(null)
const line = computed(() => start.lines.find(one => one.id === lineId.value) ?? null)
watch([phone, lines], () => lineId.value = chooseLine(lines.value, phone.value?.e164 ?? null, start.lastLine[phone.value?.e164 ?? '']), { immediate: true })
watch(numbers, (choices) => {
  if (!choices.some(choice => choice.id === phoneId.value && !choice.disabled)) phoneId.value = choices.find(choice => !choice.disabled)?.id ?? null
})

const { text, pictureIds, empty, reference, measure, sending, problem, night, lastSent, secondsLeft, send, takeBack, fill } = useComposer(
  () => `record ${record.id}`,
  () => lineId.value && phoneId.value ? { lineId: lineId.value, phoneId: phoneId.value, conversationId: null, recordId: phone.value?.person ? record.id : null } : null,
  () => line.value?.languages ?? [],
)
const pictures = usePictures(pictureIds)
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const { textarea } = useTextareaAutosize({ input: text })
/** What is open below the text; one at a time. */
const opened = ref<'templates' | 'later' | 'emoji' | null>(null)
const picking = computed({ get: () => opened.value === 'templates', set: open => opened.value = open ? 'templates' : null })
const savingAs = ref(false)
const savedAs = ref('')
const scheduled = ref('')
const first = computed(() => phone.value?.person?.firstName ?? record.firstName ?? record.name)
/** Templates are for people: a company's own number has none. */
const templatesFor = computed(() => phone.value?.person?.id ?? (isPersonModule(record.module) ? record.id : null))
const now = useNow()
const theirs = computed(() => record.zones.filter(({ name }) => phone.value?.zones.includes(name)))
/** What the sender may want to look at again; it stands in no way. */
const careful = computed(() => cautions({ text: text.value, now: now.value, sender: start.sender, last: start.texted[phone.value?.e164 ?? ''] ?? null, lastHeardAt: phone.value?.lastHeardAt ?? null }))
const why = computed(() => problem.value ? Object.values(problem.value.fields)[0] ?? problem.value.message : '')

/** Pictures that are pasted or dropped go in; words go where words go. */
function takeFrom(event: Event, data: DataTransfer | null): void {
  const files = pictures.among(data)
  if (files.length === 0) return
  event.preventDefault()
  void pictures.add(files)
}

async function choosePictures(): Promise<void> {
  await pictures.add(chooser.value?.files ?? [])
  chooser.value!.value = ''
}

watch(() => text.value !== '', writing => emit('writing', writing))

/** The moment that was asked about, where it is in their night. */
let asked: WallMoment | null = null

async function go(nightAllowed = false, later: WallMoment | null = null): Promise<void> {
  asked = later
  scheduled.value = savedAs.value = ''
  const sent = await send(nightAllowed, later)
  if (!sent) return
  emit('sent', sent.activityId)
  opened.value = null
  if (later) scheduled.value = `It leaves at ${sayMoment(later)}, and stands under what comes next.`
}

/** Puts words where the cursor is, in a way that undo knows. */
function insert(words: string): void {
  opened.value = null
  textarea.value?.focus()
  document.execCommand('insertText', false, words)
}

async function back(): Promise<void> {
  const activityId = lastSent.value?.activityId
  if (await takeBack() && activityId) {
    emit('sent', activityId)
    textarea.value?.focus()
  }
}

function take(template: FilledTemplate): void {
  fill(template.text!, template.id, template.version)
  opened.value = null
  void nextTick(() => textarea.value?.focus())
}

function close(): void {
  opened.value = null
  textarea.value?.focus()
}

useKeys([
  { keys: 't', shown: 'T', what: 'Write a text', act: () => textarea.value?.focus() },
  { keys: 'e', shown: 'E', what: 'Choose a template', act: () => picking.value = templatesFor.value !== null },
  { keys: '$mod+e', shown: 'Ctrl E', what: 'Choose a template while writing', act: () => picking.value = templatesFor.value !== null, inFields: true },
  { keys: '$mod+Shift+Enter', shown: 'Ctrl Shift Enter', what: 'Send later', act: () => { if (!empty.value) opened.value = 'later' }, inFields: true },
  { keys: '$mod+.', shown: 'Ctrl .', what: 'Put an emoji in', act: () => opened.value = 'emoji', inFields: true },
  { keys: '$mod+Shift+s', shown: 'Ctrl Shift S', what: 'Save what is written as a template', act: () => savingAs.value = text.value.trim() !== '' && isPersonModule(record.module), inFields: true },
  { keys: '$mod+Enter', shown: 'Ctrl Enter', what: 'Send', act: () => void go(), inFields: true },
  { keys: '$mod+Backspace', shown: 'Ctrl Backspace', what: 'Take the last text back', act: () => void back() },
])
</script>

<template>
  <section
    class="composer"
    aria-label="Write a text"
  >
    <div class="head">
      <PhChatCenteredText
        size="18"
        aria-hidden="true"
      />
      <strong>Text</strong>
      <span
        id="to-label"
        class="quiet"
      >to</span>
      <Select
        v-model="phoneId"
        class="bare"
        :options="numbers"
        option-value="id"
        option-label="label"
        option-disabled="disabled"
        placeholder="no number to text"
        aria-labelledby="to-label"
        :disabled="numbers.length === 0"
      >
        <template #option="{ option }">
          <span>{{ option.label }} <span class="small quiet">{{ option.note }}</span></span>
        </template>
      </Select>
      <span
        id="from-label"
        class="quiet"
      >from</span>
      <Select
        v-model="lineId"
        class="bare"
        :options="lines"
        option-value="id"
        option-label="label"
        option-disabled="disabled"
        placeholder="no line for this number"
        aria-labelledby="from-label"
      >
        <template #option="{ option }">
          <span>{{ option.label }} <span class="small quiet">{{ option.note }}</span></span>
        </template>
      </Select>
      <span
        v-if="line"
        class="quiet answered"
      >answered by {{ line.answeredBy === 1 ? 'you' : `${line.answeredBy} of you` }}</span>
    </div>
    <div class="sheet">
      <label
        class="heard-only"
        for="text"
      >Text to {{ first }}</label>
      <textarea
        id="text"
        ref="textarea"
        v-model="text"
        class="text"
        :placeholder="templatesFor ? `Write to ${first}, or press E for a template` : `Write to ${first}`"
        :aria-invalid="!!problem"
        aria-describedby="text-problem text-length"
        @paste="takeFrom($event, $event.clipboardData)"
        @drop="takeFrom($event, $event.dataTransfer)"
      />
      <div id="text-length">
        <LazyPictureTray
          v-if="pictureIds.length > 0 || pictures.comingIn.value > 0"
          :ids="pictureIds"
          :coming-in="pictures.comingIn.value"
          :line="line"
          @remove="pictures.remove"
        />
        <TextRuler
          v-else
          :text="text"
          :measure="measure"
          :price="line?.price ?? null"
          :languages="line?.languages"
        />
      </div>
      <p
        v-if="problem"
        id="text-problem"
        class="notice failed"
        role="alert"
      >
        {{ why }}
      </p>
      <p
        v-if="pictures.problem.value"
        class="notice failed"
        role="alert"
      >
        {{ pictures.problem.value }}
      </p>
      <ul
        v-if="careful.length > 0"
        class="careful"
        aria-live="polite"
      >
        <li
          v-for="one in careful"
          :key="one.kind"
        >
          {{ one.words }}
        </li>
      </ul>
      <NightNotice
        v-if="night"
        :question="night"
        :later="asked"
        @send="go(true, asked)"
        @keep="night = null"
      />
      <div class="foot">
        <button
          v-if="templatesFor"
          type="button"
          class="tool"
          :aria-expanded="picking"
          @click.stop="picking = !picking"
        >
          <PhNotePencil
            size="18"
            aria-hidden="true"
          /> Template <kbd>E</kbd>
        </button>
        <button
          type="button"
          class="tool"
          :aria-expanded="opened === 'emoji'"
          @click.stop="opened = opened === 'emoji' ? null : 'emoji'"
        >
          <PhSmiley
            size="18"
            aria-hidden="true"
          /> Emoji
        </button>
        <button
          v-if="line?.price?.microsPerPicture != null"
          type="button"
          class="tool"
          @click="chooser?.click()"
        >
          <PhImage
            size="18"
            aria-hidden="true"
          /> Picture
        </button>
        <input
          ref="chooser"
          type="file"
          hidden
          multiple
          accept="image/jpeg,image/png,image/gif,image/webp"
          @change="choosePictures"
        >
        <button
          v-if="isPersonModule(record.module) && text.trim() !== ''"
          type="button"
          class="tool"
          @click="savingAs = true"
        >
          <PhFloppyDisk
            size="18"
            aria-hidden="true"
          /> Save as template
        </button>
        <button
          type="button"
          class="tool"
          :aria-expanded="opened === 'later'"
          :disabled="empty || !lineId || !phoneId"
          @click="opened = opened === 'later' ? null : 'later'"
        >
          <PhClock
            size="18"
            aria-hidden="true"
          /> Later
        </button>
        <p
          v-if="lastSent"
          class="going"
          role="status"
        >
          <span class="figures">Leaves in {{ secondsLeft }} s.</span>
          <button
            type="button"
            class="plain-button"
            @click="back"
          >
            Take it back
          </button>
        </p>
        <Button
          class="send"
          :label="`Send to ${first} now`"
          :loading="sending"
          :disabled="empty || pictures.comingIn.value > 0 || !lineId || !phoneId"
          @click="go()"
        />
      </div>
      <TemplatePicker
        v-if="picking && templatesFor"
        :key="templatesFor"
        :record-id="templatesFor"
        :reference="reference"
        @pick="take"
        @close="close"
      />
      <LaterPanel
        v-if="opened === 'later'"
        :theirs="theirs"
        :person="first"
        :problem="problem?.fields['later.wallTime'] ?? problem?.fields['later.zone']"
        :busy="sending"
        @choose="go(false, $event)"
        @close="close"
      />
      <LazyEmojiPicker
        v-if="opened === 'emoji'"
        @pick="insert"
        @close="close"
      />
      <p
        v-if="scheduled || savedAs"
        class="small quiet"
        role="status"
      >
        {{ scheduled || `“${savedAs}” is among your templates.` }}
      </p>
      <LazySaveAsTemplate
        v-if="savingAs && isPersonModule(record.module)"
        :record-id="record.id"
        :module="record.module"
        :text="text"
        @saved="savedAs = $event; savingAs = false"
        @close="savingAs = false"
      />
    </div>
  </section>
</template>

<style scoped>
.composer { position: relative; background: var(--surface); border: 1px solid var(--field-rule); border-radius: 8px; }
.composer:focus-within { border-color: var(--quiet); }
.head { display: flex; flex-wrap: wrap; align-items: center; gap: 0.4rem; padding: 0.3rem 0.85rem; border-bottom: 1px solid var(--rule); }
.bare { border-color: transparent; background: none; }
.bare :deep(.p-select-label) { padding: 0.2rem 0.1rem 0.2rem 0.3rem; font-weight: 700; color: var(--ink); }
.bare :deep(.p-select-dropdown) { width: 1.5rem; }
.answered { margin-left: auto; }
.sheet { position: relative; padding: 0.5rem 0.85rem 0.7rem; }
.text { display: block; width: 100%; min-height: 3.2rem; max-height: 40vh; border: 0; background: none; resize: none; padding: 0.2rem 0; font-size: var(--size-text); line-height: 1.45; }
.text:focus-visible { outline: none; }
.text::placeholder { color: var(--quiet); opacity: 1; }
.foot { display: flex; flex-wrap: wrap; align-items: center; gap: 0.2rem 1.1rem; padding-top: 0.4rem; }
.send { margin-left: auto; }
.careful { color: var(--saffron-ink, var(--saffron)); padding-top: 0.25rem; }
.tool { display: inline-flex; align-items: center; gap: 0.35rem; border: 0; background: none; color: var(--quiet); cursor: pointer; padding: 0.3rem 0; }
.tool:hover { color: var(--ink); }
.going { display: flex; gap: 0.6rem; align-items: center; margin-left: auto; color: var(--saffron); }
.going + .send { margin-left: 0; }
.tool:disabled { opacity: 0.45; cursor: default; }
</style>

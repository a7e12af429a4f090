<script setup lang="ts">
import { AWAY_MINUTES } from '~~/core/lines/stand-in'
import { cautions } from '~~/core/message/cautions'
import type { TakenBack } from '~~/shared/texting'
import type { FilledTemplate } from '~~/shared/template'
import { useComposer, type DoubtQuestion, type Opened, type SendHow } from '~/composables/composer'
import { useGrowing } from '~/composables/growing'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { usePictures } from '~/composables/pictures'
import type { WritingTo } from '~/composables/target'
import { sayMoment } from '~/words/moments'

/** Writing a text to somebody, on a record or on none: the one composer there is. */
const { to, fieldId = 'text', field, sends, hint, focused = false } = defineProps<{
  to: WritingTo
  fieldId?: string
  /** What the field and the button are called, where that is not "to" somebody. */
  field?: string
  sends?: string
  hint?: string
  /** Whether the cursor is in it from the beginning. */
  focused?: boolean
}>()
const emit = defineEmits<{ sent: [activityId: string], writing: [writing: boolean] }>()

const { numbers, phoneId, lines, lineId, line, why: whyThisLine, name, templatesAt, zones, target, optedOut, known, saves, problem: noTarget } = to
const { text, pictureIds, empty, reference, measure, sending, problem, night, doubt, lastSent, secondsLeft, send, takeBack, takeUp, comesFrom } = useComposer(
  to.draftKey,
  () => target.value,
  () => line.value?.languages ?? [],
  () => to.openedAt.value,
)
const pictures = usePictures(pictureIds)
const { textarea } = useGrowing(text)
onMounted(() => focused && textarea.value?.focus())
/** What is open below the text; one at a time. */
const opened = ref<Opened | null>(null)
const savingAs = ref(false)
const savedAs = ref('')
const scheduled = ref('')
const now = useNow()
/** What the sender may want to look at again; it stands in no way. */
const careful = computed(() => optedOut.value ? [] : cautions({ text: text.value, now: now.value, ...known.value }))
const why = computed(() => noTarget.value || (problem.value ? Object.values(problem.value.fields)[0] ?? problem.value.message : ''))

/** Pictures that are pasted or dropped go in; words go where words go. */
function takeFrom(event: Event, data: DataTransfer | null): void {
  const files = pictures.among(data)
  if (files.length === 0) return
  event.preventDefault()
  void pictures.add(files)
}

/** What an admin can help with. */
const MONEY_PROBLEMS = ['no-balance', 'over-limit']

watch(() => text.value !== '', writing => emit('writing', writing))

/** How it was to leave when something was asked about it. */
const asked = ref<SendHow>({})

async function go(how: SendHow = {}): Promise<void> {
  asked.value = how
  scheduled.value = savedAs.value = ''
  const sent = await send(how)
  if (!sent) return
  const { later } = how
  emit('sent', sent.activityId)
  opened.value = null
  if (later) scheduled.value = `It leaves at ${sayMoment(later)}, and stands under what comes next.`
}

function sendAllTheSame({ doubt: which, seenUntil }: DoubtQuestion): void {
  const { anyway = [] } = asked.value
  void go(which === 'answered' ? { ...asked.value, seenUntil } : { ...asked.value, anyway: [...anyway, which] })
}

/** Puts words where the cursor is, or in place of all that is written; either way undo brings back what was there. */
function insert(words: string, instead = false): void {
  opened.value = null
  textarea.value?.focus()
  if (instead) textarea.value?.select()
  document.execCommand('insertText', false, words)
}

async function back(): Promise<void> {
  const activityId = lastSent.value?.activityId
  if (await takeBack() && activityId) {
    emit('sent', activityId)
    textarea.value?.focus()
  }
}

function take(template: FilledTemplate, instead: boolean): void {
  insert(template.text!, instead)
  comesFrom(template.id, template.version)
}

/** What was said once is written again; behind what is there, which stays. */
function writeAgain(words: string): void {
  const area = textarea.value
  area?.setSelectionRange(area.value.length, area.value.length)
  insert(text.value.trim() ? `\n${words}` : words)
}
/** Somebody has chosen a number elsewhere on the page. */
function textTo(id: string): void {
  phoneId.value = id
  textarea.value?.focus()
}

/** A scheduled text was taken back to be changed: its words come here, and its moment is proposed again. */
const lastMoment = shallowRef<TakenBack['later']>(null)
function change(back: TakenBack): void {
  if (empty.value) takeUp(back)
  else writeAgain(back.text)
  lastMoment.value = back.later
  if (back.later) opened.value = 'later'
  void nextTick(() => textarea.value?.focus())
}
defineExpose({ writeAgain, textTo, change })

function close(): void {
  opened.value = null
  textarea.value?.focus()
}

const pick = () => templatesAt.value && (opened.value = 'templates')
useKeys([
  { keys: 't', shown: 'T', what: 'Write a text', act: () => textarea.value?.focus() },
  { keys: 'e', shown: 'E', what: 'Choose a template', act: pick },
  { keys: '$mod+e', shown: 'Ctrl E', what: 'Choose a template while writing', act: pick, inFields: true },
  {
    keys: '$mod+Shift+Enter',
    shown: 'Ctrl Shift Enter',
    what: 'Send later',
    act: () => {
      if (!empty.value) opened.value = 'later'
    },
    inFields: true,
  },
  { keys: '$mod+.', shown: 'Ctrl .', what: 'Insert an emoji', act: () => (opened.value = 'emoji'), inFields: true },
  {
    keys: '$mod+Shift+s',
    shown: 'Ctrl Shift S',
    what: 'Save what is written as a template',
    act: () => (savingAs.value = text.value.trim() !== '' && saves.value !== null),
    inFields: true,
  },
  { keys: '$mod+Enter', shown: 'Ctrl Enter', what: 'Send', act: () => void go(), inFields: true },
  {
    keys: '$mod+Backspace',
    shown: 'Ctrl Backspace',
    what: 'Take the last text back',
    // where something is written, it takes the word before the cursor away
    when: ({ target }) => lastSent.value !== null && !(target instanceof HTMLElement && 'value' in target && target.value !== ''),
    act: () => void back(),
    inFields: true,
  },
])
</script>

<template>
  <section
    class="composer"
    :aria-label="field ? `${field} to ${name}` : 'Write a text'"
  >
    <ComposerHead
      v-model:phone-id="phoneId"
      v-model:line-id="lineId"
      :numbers="numbers"
      :lines="lines"
      :line="line"
      :why="whyThisLine"
    />
    <div class="sheet">
      <label
        class="heard-only"
        :for="fieldId"
      >{{ field ?? `Text to ${name}` }}</label>
      <textarea
        :id="fieldId"
        ref="textarea"
        v-model="text"
        class="text"
        dir="auto"
        :placeholder="hint ?? (templatesAt ? `Write to ${name}, or press E for a template` : `Write to ${name}`)"
        :aria-invalid="!!problem"
        :aria-describedby="`${fieldId}-problem ${fieldId}-length`"
        @paste="takeFrom($event, $event.clipboardData)"
        @drop="takeFrom($event, $event.dataTransfer)"
      />
      <div :id="`${fieldId}-length`">
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
          @swap="insert($event, true)"
        />
      </div>
      <p
        v-if="optedOut"
        class="notice"
        role="status"
      >
        {{ name }} has opted out of texts, so none leaves. Call instead, or wait until START comes from the number.
      </p>
      <p
        v-else-if="line?.away"
        class="notice"
        role="status"
      >
        The carrier of {{ line.name }} cannot be reached at the moment. What you send waits, and leaves by itself {{ line.standIn ? `once it is back, or over ${line.standIn} after ${AWAY_MINUTES} minutes` : 'once it is back' }}.
      </p>
      <p
        v-if="why"
        :id="`${fieldId}-problem`"
        class="notice failed"
        role="alert"
      >
        {{ why }}
      </p>
      <p
        v-if="problem?.type === 'terms-unread'"
        class="notice"
      >
        <NuxtLink to="/terms">Read the terms of use</NuxtLink>
      </p>
      <LazyAskForMoney
        v-if="problem && MONEY_PROBLEMS.includes(problem.type)"
        :key="problem.message"
        :currency="String(problem.details.currency)"
        :why="problem.message"
        @again="go(asked)"
      />
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
        :later="asked.later"
        @send="go({ ...asked, nightAllowed: true })"
        @later="go({ ...asked, later: $event })"
        @keep="night = null"
      />
      <DoubtNotice
        v-if="doubt"
        :question="doubt"
        @send="sendAllTheSame(doubt)"
        @keep="doubt = null"
      />
      <div class="foot">
        <ComposerTools
          v-model:opened="opened"
          :templates="templatesAt !== null"
          :pictures="line?.price?.microsPerPicture != null"
          :saves="saves !== null && text.trim() !== ''"
          :later="!empty && target !== null"
          @pictures="pictures.add"
          @save="savingAs = true"
        />
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
          :label="sends ?? `Send to ${name} now`"
          :loading="sending"
          :disabled="empty || pictures.comingIn.value > 0 || !target"
          @click="go()"
        />
      </div>
      <TemplatePicker
        v-if="opened === 'templates' && templatesAt"
        :key="templatesAt"
        :at="templatesAt"
        :reference="reference"
        :written="text.trim() !== ''"
        @pick="take"
        @close="close"
      />
      <LazyLaterPanel
        v-if="opened === 'later'"
        :theirs="zones"
        :person="name"
        :moment="lastMoment"
        :problem="problem?.fields['later.wallTime'] ?? problem?.fields['later.zone']"
        :busy="sending"
        @choose="go({ later: $event })"
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
        v-if="savingAs && saves"
        v-bind="saves"
        :text="text"
        @saved="savedAs = $event; savingAs = false"
        @close="savingAs = false"
      />
    </div>
  </section>
</template>

<style scoped>
.composer { position: relative; min-width: 0; background: var(--surface); border: 1px solid var(--field-rule); border-radius: var(--round-large); }
.composer:focus-within { border-color: var(--quiet); }
.sheet { position: relative; padding: var(--space-3) var(--space-5) var(--space-4); }
.text { display: block; width: 100%; min-height: 3.2rem; max-height: 40vh; border: 0; background: none; resize: none; field-sizing: content; padding: var(--space-1) 0; font-size: var(--size-text); line-height: 1.45; }
.text:focus-visible { outline: none; }
.text::placeholder { color: var(--quiet); opacity: 1; }
.foot { display: flex; flex-wrap: wrap; align-items: center; gap: var(--space-1) var(--space-6); padding-top: var(--space-2); }
.send { margin-left: auto; max-width: 100%; overflow-wrap: anywhere; }
.careful { color: var(--waiting-ink, var(--waiting)); padding-top: var(--space-1); }
.going { display: flex; gap: var(--space-4); align-items: center; margin-left: auto; color: var(--waiting); }
.going + .send { margin-left: 0; }
</style>

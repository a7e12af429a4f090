<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { FEWEST_SAMPLES, MOST_SAMPLES, type Papers } from '~~/core/papers/papers'
import { MOST_PAPER_FILES, type PaperFile, type PapersFront } from '~~/shared/papers'
import { COUNTRIES } from '~~/core/places/countries'
import { api, asMe, OFFLINE, ApiProblem } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useTrying } from '~/composables/trying'
import { useUnsaved } from '~/composables/unsaved'
import { countryName } from '~/words/country'

/** What carriers ask, written once: who the firm is, how people agree, samples, files. */
const { front } = defineProps<{ front: PapersFront }>()
const emit = defineEmits<{ changed: [front: PapersFront] }>()

const copyOf = (papers: Papers): Papers => ({ ...papers, samples: [...papers.samples, ...Array<string>(Math.max(0, FEWEST_SAMPLES - papers.samples.length)).fill('')] })
const form = ref(copyOf(front.papers))
const written = computed<Papers>(() => ({ ...form.value, samples: form.value.samples.map(one => one.trim()).filter(Boolean) }))
/** What is written here is held against it: what was there when writing began, or was saved last. */
let begun = JSON.stringify(written.value)
const unsaved = () => JSON.stringify(written.value) !== begun
useUnsaved(unsaved)

/** The version that is being changed: another admin's is not written over unseen. */
let after = front.version
function adopt({ papers, version }: PapersFront): void {
  form.value = copyOf(papers)
  begun = JSON.stringify(written.value)
  after = version
}
// somebody else has written on them, and nobody here has
watch(() => front.version, () => unsaved() || adopt(front))

const saved = ref(false)
const { errors, saving, save } = useSaving('whole')
async function keep(): Promise<void> {
  saved.value = await save(async () => {
    const now = await api<PapersFront>('/api/set-up/papers', { method: 'PUT', body: { ...written.value, after } }).catch(async (error) => {
      // seen once, it may be written over
      if (error instanceof ApiProblem && error.type === 'papers-changed') after = (await api<PapersFront>('/api/set-up/papers')).version
      throw error
    })
    adopt(now)
    emit('changed', now)
  })
}

const { problem: fileProblem, busy, trying } = useTrying()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const addFiles = () => trying(async () => {
  for (const file of chooser.value!.files ?? []) {
    const path = `/api/set-up/papers/files/${uuid()}?name=${encodeURIComponent(file.name)}`
    const response = await fetch(path, { method: 'PUT', body: file, headers: { ...asMe(), 'content-type': 'application/octet-stream' } })
      .catch(() => { throw new ApiProblem(OFFLINE) })
    if (!response.ok) throw new ApiProblem(await response.json())
    emit('changed', await response.json() as PapersFront)
  }
}).finally(() => chooser.value!.value = '')
const removeFile = ({ id }: PaperFile) =>
  trying(async () => emit('changed', await api<PapersFront>(`/api/set-up/papers/files/${id}`, { method: 'DELETE' })))
const kiloBytes = ({ size }: PaperFile) => `${Math.max(1, Math.round(size / 1_000)).toLocaleString('en-US')} kB`

const countries = [{ value: '', label: '' }, ...COUNTRIES.map(value => ({ value, label: countryName(value) })).sort((a, b) => a.label.localeCompare(b.label))]
const LINES = [
  { key: 'firm', label: 'The company, as it is registered' },
  { key: 'brand', label: 'As people know it, if that is something else' },
  { key: 'number', label: 'Its number in the register, or for tax' },
  { key: 'website', label: 'Website' },
] as const
const CONTACT = [
  { key: 'contact', label: 'Whom a carrier can ask' },
  { key: 'mail', label: 'Their mail address' },
  { key: 'phone', label: 'Their telephone' },
] as const
</script>

<template>
  <form
    class="papers"
    novalidate
    @submit.prevent="keep"
    @input="saved = false"
  >
    <h2>What they ask</h2>
    <div class="pair">
      <LabelledField
        v-for="{ key, label } in LINES"
        :id="`papers-${key}`"
        :key="key"
        v-slot="{ input }"
        :label="label"
        :error="errors[key]"
      >
        <InputText
          v-bind="input"
          v-model="form[key]"
          autocomplete="off"
        />
      </LabelledField>
      <LabelledField
        id="papers-address"
        v-slot="{ input }"
        label="Address"
        :error="errors.address"
      >
        <Textarea
          v-bind="input"
          v-model="form.address"
          rows="2"
        />
      </LabelledField>
      <ChoiceField
        id="papers-country"
        v-model="form.country"
        label="Country"
        :choices="countries"
        :error="errors.country"
      />
    </div>
    <div class="three">
      <LabelledField
        v-for="{ key, label } in CONTACT"
        :id="`papers-${key}`"
        :key="key"
        v-slot="{ input }"
        :label="label"
        :error="errors[key]"
      >
        <InputText
          v-bind="input"
          v-model="form[key]"
          autocomplete="off"
        />
      </LabelledField>
    </div>
    <div class="pair">
      <LabelledField
        id="papers-about"
        v-slot="{ input }"
        label="What you text, to whom, and why"
        :error="errors.about"
      >
        <Textarea
          v-bind="input"
          v-model="form.about"
          rows="4"
        />
      </LabelledField>
      <LabelledField
        id="papers-agree"
        v-slot="{ input }"
        label="How people agree to it, and how they end it"
        :error="errors.agree"
      >
        <Textarea
          v-bind="input"
          v-model="form.agree"
          rows="4"
        />
      </LabelledField>
    </div>
    <fieldset class="samples">
      <legend>Sample texts, as you send them; [first name] where something is filled in</legend>
      <div
        v-for="(_, i) in form.samples"
        :key="i"
        class="sample"
      >
        <Textarea
          v-model="form.samples[i]"
          rows="2"
          dir="auto"
          :aria-label="`Sample text ${i + 1}`"
          :invalid="!!errors[`samples[${i}]`]"
        />
        <button
          type="button"
          class="plain-button calm"
          :aria-label="`Remove sample text ${i + 1}`"
          @click="form.samples.splice(i, 1)"
        >
          Remove
        </button>
        <p
          v-if="errors[`samples[${i}]`]"
          class="field-error"
        >
          {{ errors[`samples[${i}]`] }}
        </p>
      </div>
      <p
        v-if="errors.samples"
        class="field-error"
      >
        {{ errors.samples }}
      </p>
      <p v-if="form.samples.length < MOST_SAMPLES">
        <button
          type="button"
          class="plain-button"
          @click="form.samples.push('')"
        >
          Another sample
        </button>
      </p>
    </fieldset>
    <p
      v-if="errors.whole"
      class="notice failed"
      role="alert"
    >
      {{ errors.whole }}
    </p>
    <p class="acts">
      <Button
        type="submit"
        label="Save"
        :loading="saving"
      />
      <a
        class="plain-button calm"
        href="/api/set-up/papers/text"
        download="papers.txt"
      >Take them out as text</a>
      <span
        class="quiet"
        role="status"
      >{{ saved ? 'Kept. A carrier has it once it is handed in.' : '' }}</span>
    </p>
  </form>
  <section class="papers">
    <h2>Files</h2>
    <p class="quiet small">
      An extract of the register, a picture of the form on which people agree: PDF, PNG or JPEG, up to 2 MB each.
    </p>
    <ul>
      <li
        v-for="file in front.files"
        :key="file.id"
        class="file"
      >
        <a
          :href="`/api/set-up/papers/files/${file.id}`"
          :download="file.name"
        >{{ file.name }}</a>
        <span class="quiet small figures">{{ kiloBytes(file) }}</span>
        <button
          type="button"
          class="plain-button calm"
          :aria-label="`Remove ${file.name}`"
          :disabled="busy"
          @click="removeFile(file)"
        >
          Remove
        </button>
      </li>
    </ul>
    <p
      v-if="fileProblem"
      class="notice failed"
      role="alert"
    >
      {{ fileProblem }}
    </p>
    <p v-if="front.files.length < MOST_PAPER_FILES">
      <input
        ref="chooser"
        type="file"
        hidden
        multiple
        accept="application/pdf,image/png,image/jpeg"
        aria-label="Files to add"
        @change="addFiles"
      >
      <Button
        label="Add a file"
        severity="secondary"
        :loading="busy"
        @click="chooser?.click()"
      />
    </p>
  </section>
</template>

<style scoped>
.papers { display: grid; gap: var(--space-5); max-width: 68rem; padding-top: var(--space-8); }
h2 { font-size: var(--size-text); }
.pair { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-5) var(--space-6); align-items: start; }
.three { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: var(--space-5) var(--space-6); align-items: start; }
.samples { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-4); }
.samples legend { padding: 0 0 var(--space-2); color: var(--quiet); }
.sample { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: var(--space-2) var(--space-5); align-items: start; }
.sample .field-error { grid-column: 1 / -1; }
.acts { display: flex; flex-wrap: wrap; gap: var(--space-5); align-items: center; }
.file { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; align-items: baseline; }
@media (max-width: 700px) { .pair, .three { grid-template-columns: minmax(0, 1fr); } }
</style>

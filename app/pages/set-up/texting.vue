<script setup lang="ts">
import type { SetUpTexting } from '~~/shared/terms'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'
import { onlyWith } from '~/composables/set-up-list'
import { useTrying } from '~/composables/trying'
import { useUnsaved } from '~/composables/unsaved'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { shortDay } from '~/words/time'

definePageMeta({ middleware: () => onlyWith('texting.switch') })

const me = useMe()
const words = ref('')
let before = ''
/** After which version what stands there was written. */
let after: number | null = null
/** What somebody else has written while this was being changed. */
const theirs = ref('')
const unsaved = () => words.value !== before
const saved = ref(false)
const { found: texting, problem, load } = useLoaded<SetUpTexting>('/api/set-up/texting', ({ words: kept, version }) => {
  if (!unsaved()) {
    words.value = before = kept
    after = version
  }
})
useUnsaved(unsaved)

const { errors, saving, save } = useSaving('words')
async function keep(): Promise<void> {
  saved.value = await save(async () => {
    texting.value = await api<SetUpTexting>('/api/set-up/texting/terms', { method: 'PUT', body: { words: words.value, after } })
    words.value = before = texting.value.words
    after = texting.value.version
  })
  theirs.value = ''
  if (!saved.value) await load()
  if (!saved.value && texting.value && texting.value.version !== after) {
    theirs.value = texting.value.words
    after = texting.value.version
  }
  if (saved.value) await me.countAgain()
}

const { problem: notSwitched, busy, trying } = useTrying()
const turn = (on: boolean) => trying(async () => texting.value = await api<SetUpTexting>('/api/set-up/texting', { method: 'PUT', body: { on } }))
const unread = computed(() => texting.value?.readers.filter(({ version }) => version !== texting.value!.version) ?? [])

// somebody has read them
useLive(notice => notice.kind === 'terms' && void load(), () => void load())
</script>

<template>
  <SetUpRoom
    title="Texting"
    hint="Whether everybody may text, and what they read before."
    what="the terms"
    :loaded="texting !== null"
    :problem="problem || notSwitched"
    @again="load"
  >
    <template v-if="texting">
      <section class="switch">
        <p>
          <strong :class="texting.on ? '' : 'waits'">{{ texting.on ? 'Texting is switched on.' : 'Texting is switched off.' }}</strong>
          {{ texting.on ? 'Everybody who has read the terms may text.' : 'Only admins may text, to try it. What others have scheduled is held.' }}
        </p>
        <Button
          :label="texting.on ? 'Switch it off' : 'Switch it on for everybody'"
          :severity="texting.on ? 'secondary' : undefined"
          :loading="busy"
          @click="turn(!texting.on)"
        />
      </section>
      <form
        class="form"
        novalidate
        @submit.prevent="keep"
      >
        <LabelledField
          id="terms-words"
          v-slot="{ input }"
          :label="texting.version === null ? 'Terms of use: a proposal, to be put into your own words' : `Terms of use, version ${texting.version}`"
          :error="errors.words"
        >
          <Textarea
            v-bind="input"
            v-model="words"
            rows="14"
            dir="auto"
            @update:model-value="saved = false"
          />
        </LabelledField>
        <p
          v-if="theirs"
          class="notice theirs"
          dir="auto"
        >
          {{ theirs }}
        </p>
        <p class="acts">
          <Button
            type="submit"
            :label="texting.version === null ? 'Save the terms' : 'Save as a new version'"
            severity="secondary"
            :loading="saving"
            :disabled="texting.version !== null && !unsaved()"
          />
          <span
            class="quiet"
            role="status"
          >{{ saved ? 'Kept. Everybody is asked to read it before their next text.' : 'Whoever texts reads it first, and again when it has changed.' }}</span>
        </p>
      </form>
      <section v-if="texting.version !== null">
        <h2>Who has read version {{ texting.version }}</h2>
        <p
          v-if="unread.length === 0"
          class="quiet"
        >
          Everybody.
        </p>
        <p
          v-else
          class="waits"
        >
          {{ many(unread.length, 'colleague has', 'colleagues have') }} not.
        </p>
        <ul>
          <li
            v-for="{ id, name, version, at } in texting.readers"
            :key="id"
            class="row"
          >
            <strong>{{ name }}</strong>
            <span :class="version === texting.version ? 'quiet' : 'waits'">{{ at === null ? 'not yet' : `${version === texting.version ? '' : `version ${version}, `}${shortDay(at, me.me!.zone)}` }}</span>
          </li>
        </ul>
        <p class="quiet small">
          <span
            v-for="{ version, madeAt, by } in texting.versions"
            :key="version"
          >Version {{ version }} was written by {{ by }} on {{ shortDay(madeAt, me.me!.zone) }}. </span>
        </p>
      </section>
    </template>
  </SetUpRoom>
</template>

<style scoped>
section, .form { max-width: 46rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.switch { display: flex; flex-wrap: wrap; gap: var(--space-4) var(--space-6); align-items: center; justify-content: space-between; }
.form { display: grid; gap: var(--space-4); }
.form textarea { width: 100%; line-height: 1.5; }
.theirs { white-space: pre-line; }
.acts { display: flex; flex-wrap: wrap; gap: var(--space-5); align-items: center; }
.row { display: flex; justify-content: space-between; gap: var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; max-width: 30rem; }
.waits { color: var(--waiting); }
</style>

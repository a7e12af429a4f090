<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { SpokenMessage } from '~~/shared/calling'
import { LONGEST_SPOKEN_MS, TOO_LONG_SPOKEN } from '~~/shared/schemas/calling'
import { api } from '~/composables/api'
import { useSeconds } from '~/composables/now'
import { useSaving } from '~/composables/saving'
import { telephoneSound, useSpeaking } from '~/composables/speaking'
import { useMe } from '~/stores/me'
import { sayDuration } from '~/words/calls'

/** Speaks a message for mailboxes, or changes one. What was typed and spoken stays when saving fails. */
const { spoken } = defineProps<{ spoken: SpokenMessage | null }>()
const emit = defineEmits<{ saved: [all: SpokenMessage[]], close: [] }>()
const me = useMe().me!

const id = spoken?.id ?? uuid()
const name = ref(spoken?.name ?? '')
const words = ref(spoken?.words ?? '')
/** A list that drops down shows no choice whose value is nothing. */
const ALONE = 'alone'
const whose = ref(spoken ? spoken.team?.id ?? ALONE : me.teams[0]?.id ?? ALONE)
const teams = [
  ...new Map(
    [...me.teams, ...(spoken?.team ? [spoken.team] : [])].map(team => [team.id, { value: team.id, label: `All of ${team.name}` }]),
  ).values(),
  { value: ALONE, label: 'Whoever has spoken it' },
]
const sound = shallowRef<{ base64: string, ms: number } | null>(null)
const { errors, saving, save } = useSaving('name')
const seconds = useSeconds()

async function take(blob: Blob): Promise<void> {
  try {
    const spoken = await telephoneSound(blob)
    if (spoken.ms > LONGEST_SPOKEN_MS) return void (errors.value = { sound: TOO_LONG_SPOKEN })
    sound.value = spoken
    errors.value = {}
  }
  catch {
    errors.value = { sound: 'This browser finds no sound in it. Record it, or choose a WAV file.' }
  }
}
const speaking = useSpeaking(blob => void take(blob))
function onFile(event: Event): void {
  const [file] = (event.target as HTMLInputElement).files ?? []
  if (file) void take(file)
}

const keep = () =>
  save(async () =>
    emit(
      'saved',
      await api<SpokenMessage[]>(`/api/spoken/${id}`, {
        method: 'PUT',
        body: {
          name: name.value,
          words: words.value,
          teamId: whose.value === ALONE ? null : whose.value,
          sound: sound.value?.base64 ?? null,
        },
      }),
    ),
  )
</script>

<template>
  <Dialog
    visible
    modal
    :header="spoken ? `Change “${spoken.name}”` : 'Record a message'"
    :style="{ width: '34rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="keep"
    >
      <LabelledField
        id="spoken-name"
        v-slot="{ input }"
        label="Name"
        :error="errors.name"
      >
        <InputText
          v-bind="input"
          v-model="name"
          autocomplete="off"
          autofocus
          placeholder="Short hello"
        />
      </LabelledField>
      <LabelledField
        id="spoken-words"
        v-slot="{ input }"
        label="Its words, for the timeline"
        :error="errors.words"
      >
        <Textarea
          v-bind="input"
          v-model="words"
          rows="4"
        />
      </LabelledField>
      <section aria-label="Its sound">
        <p class="acts">
          <button
            v-if="speaking.since.value === null"
            type="button"
            class="plain-button"
            @click="speaking.begin"
          >
            {{ sound || spoken ? 'Record it again' : 'Record it' }}
          </button>
          <button
            v-else
            type="button"
            class="plain-button stop figures"
            @click="speaking.end"
          >
            Stop, {{ sayDuration(seconds - speaking.since.value) }}
          </button>
          <label class="plain-button file">
            Choose a file<input
              type="file"
              accept="audio/*"
              class="heard-only"
              @change="onFile"
            >
          </label>
          <PlayButton
            v-if="sound"
            :src="`data:audio/wav;base64,${sound.base64}`"
            what="what you have spoken"
            :ms="sound.ms"
          />
          <PlayButton
            v-else-if="spoken"
            :src="`/api/spoken/${spoken.id}/sound`"
            :what="spoken.name"
            :ms="spoken.ms"
          />
        </p>
        <p
          v-if="errors.sound || speaking.problem.value"
          class="field-error"
          role="alert"
        >
          {{ errors.sound ?? speaking.problem.value }}
        </p>
      </section>
      <LabelledField
        id="spoken-team"
        v-slot="{ choice }"
        label="Who may leave it"
        :error="errors.teamId"
      >
        <Select
          v-bind="choice"
          v-model="whose"
          :options="teams"
          option-value="value"
          option-label="label"
        />
      </LabelledField>
      <p>
        <Button
          type="submit"
          label="Save the message"
          :loading="saving"
          :disabled="speaking.since.value !== null"
        />
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.acts { display: flex; gap: var(--space-7); align-items: center; min-height: 28px; }
.stop { color: var(--wrong); }
.file { position: relative; }
.file:focus-within { outline: 2px solid var(--accent); outline-offset: 2px; border-radius: var(--round-small); }
</style>

<script setup lang="ts">
import { PhPause, PhPlay } from '@phosphor-icons/vue'
import { v7 as uuid } from 'uuid'
import WaveSurfer from 'wavesurfer.js'
import type { CallRecording } from '~~/shared/calling'
import { api, ApiProblem } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { sayDuration } from '~/words/calls'

/** What was recorded of a call: its shape, played from anywhere in it, with notes at moments. */
const { recording } = defineProps<{ recording: CallRecording }>()
const me = useMe()
/** Whose talk it was listens, and whoever leads them; a message is for all who answer its line. */
const mayHear = computed(() =>
  recording.of === 'message' || !['none', 'own'].includes(me.me!.rights['recording.hear'])
  || (me.may('recording.hear') && !!recording.had?.some(({ id }) => id === me.me!.id)))
const whoHears = computed(() => recording.of === 'message'
  ? 'All who answer the line may listen.'
  : `${(recording.had ?? []).map(({ firstName }) => firstName).join(' and ') || 'Whoever talked'} and who leads them may listen.`)

const shape = useTemplateRef<HTMLElement>('shape')
const playing = ref(false)
const loading = ref(false)
const atMs = ref(0)
const { problem, trying } = useTrying()
const marking = ref(false)
/** The cursor is in it before the next key: who types at once loses no letter. */
async function beginMark(): Promise<void> {
  marking.value = true
  await nextTick()
  document.getElementById(`mark-${recording.id}`)?.focus()
}
const words = ref('')
let player: WaveSurfer | null = null
let loaded = false

onMounted(() => {
  const color = (role: string) => getComputedStyle(document.documentElement).getPropertyValue(role).trim()
  player = WaveSurfer.create({
    container: shape.value!,
    height: 36,
    barWidth: 2,
    barGap: 1,
    cursorWidth: 2,
    normalize: true,
    dragToSeek: true,
    interact: false,
    waveColor: color('--field-rule'),
    progressColor: color('--calm'),
    cursorColor: color('--accent'),
    peaks: [recording.peaks],
    duration: recording.ms / 1_000,
  })
  player.on('timeupdate', seconds => atMs.value = Math.round(seconds * 1_000))
  player.on('play', () => playing.value = true)
  player.on('pause', () => playing.value = false)
  player.on('finish', () => playing.value = false)
})
onBeforeUnmount(() => player?.destroy())

/** The sound is fetched when somebody wants to hear it: that is noted. */
async function load(): Promise<boolean> {
  if (loaded) return true
  loading.value = true
  try {
    await player!.loadBlob(
      await api<Blob>(`/api/recordings/${recording.id}`, { responseType: 'blob' }),
      [recording.peaks],
      recording.ms / 1_000,
    )
    player!.setOptions({ interact: true })
    loaded = true
    problem.value = ''
  }
  catch (error) {
    problem.value = error instanceof ApiProblem ? error.message : 'This browser cannot play it.'
  }
  loading.value = false
  return loaded
}

async function toggle(): Promise<void> {
  if (await load()) await player!.playPause()
}

async function hearFrom(ms: number): Promise<void> {
  if (!await load()) return
  player!.setTime(ms / 1_000)
  await player!.play()
}

const mark = () => trying(async () => {
  await api(`/api/recordings/${recording.id}/marks`, {
    method: 'POST',
    body: { id: uuid(), atMs: Math.min(atMs.value, recording.ms), words: words.value },
  })
  marking.value = false
  words.value = ''
})
</script>

<template>
  <div
    class="recording"
    role="group"
    :aria-label="recording.of === 'message' ? 'Message that was left' : 'Recording of the call'"
  >
    <div class="row">
      <button
        v-if="mayHear"
        type="button"
        class="plain-button play"
        :disabled="loading"
        @click="toggle"
      >
        <component
          :is="playing ? PhPause : PhPlay"
          size="18"
          aria-hidden="true"
        /> {{ playing ? 'Pause' : 'Play' }}
      </button>
      <div class="drawn">
        <div
          ref="shape"
          aria-hidden="true"
        />
        <span
          v-for="one in recording.marks"
          :key="one.id"
          class="flag"
          :style="{ left: `${one.atMs / recording.ms * 100}%` }"
          aria-hidden="true"
        />
      </div>
      <span class="quiet small figures">{{ sayDuration(atMs) }} of {{ sayDuration(recording.ms) }}. {{ whoHears }}</span>
      <button
        v-if="mayHear && !marking"
        type="button"
        class="plain-button calm"
        @click="beginMark"
      >
        Note here
      </button>
    </div>
    <form
      v-if="marking"
      class="row"
      @submit.prevent="mark"
    >
      <label
        :for="`mark-${recording.id}`"
        class="heard-only"
      >Note at {{ sayDuration(atMs) }}</label>
      <InputText
        :id="`mark-${recording.id}`"
        v-model="words"
        size="small"
        :placeholder="`What was said at ${sayDuration(atMs)}`"
        autocomplete="off"
        class="words"
      />
      <Button
        type="submit"
        size="small"
        label="Save"
      />
      <button
        type="button"
        class="plain-button calm"
        @click="marking = false"
      >
        Cancel
      </button>
    </form>
    <ul v-if="recording.marks.length > 0">
      <li
        v-for="one in recording.marks"
        :key="one.id"
      >
        <button
          v-if="mayHear"
          type="button"
          class="plain-button figures"
          :aria-label="`Play from ${sayDuration(one.atMs)}`"
          @click="hearFrom(one.atMs)"
        >
          {{ sayDuration(one.atMs) }}
        </button>
        <span
          v-else
          class="figures"
        >{{ sayDuration(one.atMs) }}</span>
        {{ one.words }} <span class="quiet small">{{ one.colleague }}</span>
      </li>
    </ul>
    <p
      v-if="problem"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.recording { display: grid; gap: var(--space-2); padding: var(--space-2) 0; max-width: 44rem; }
.row { display: flex; align-items: center; gap: var(--space-5); }
.play { display: inline-flex; align-items: center; gap: var(--space-2); min-width: 4.6rem; }
.drawn { position: relative; flex: 1; min-width: 4rem; }
.flag { position: absolute; top: 0; bottom: 0; width: 2px; background: var(--waiting); pointer-events: none; }
.words { flex: 1; }
li { display: flex; gap: var(--space-4); align-items: baseline; }
</style>

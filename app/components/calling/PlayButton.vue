<script setup lang="ts">
import { PhPlay, PhStop } from '@phosphor-icons/vue'
import { sayDuration } from '~/words/calls'

/** Plays a short sound from its beginning, or stops it. */
const { src, what, ms } = defineProps<{ src: string, /** What is heard, for the ear. */ what: string, ms: number }>()
const playing = ref(false)
const problem = ref(false)
let sound: HTMLAudioElement | null = null

function stop(): void {
  sound?.pause()
  sound = null
  playing.value = false
}

async function toggle(): Promise<void> {
  if (playing.value) return stop()
  sound = new Audio(src)
  sound.onended = stop
  playing.value = true
  problem.value = false
  try {
    await sound.play()
  }
  catch {
    stop()
    problem.value = true
  }
}
watch(() => src, stop)
onBeforeUnmount(stop)
</script>

<template>
  <button
    type="button"
    class="plain-button play figures"
    :aria-label="playing ? `Stop ${what}` : `Hear ${what}`"
    @click="toggle"
  >
    <component
      :is="playing ? PhStop : PhPlay"
      size="16"
      aria-hidden="true"
    />
    {{ problem ? 'cannot be played here' : sayDuration(ms) }}
  </button>
</template>

<style scoped>
.play { display: inline-flex; gap: var(--space-2); align-items: center; }
</style>

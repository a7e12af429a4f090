<script setup lang="ts">
import { PhClock, PhFloppyDisk, PhImage, PhNotePencil, PhSmiley } from '@phosphor-icons/vue'
import type { Opened } from '~/composables/composer'

/** What can be put into a text, or done with it but sending it at once. */
const { templates, pictures, saves, later } = defineProps<{
  templates: boolean
  pictures: boolean
  /** Whether what is written can be made a template. */
  saves: boolean
  /** Whether there is something to send later. */
  later: boolean
}>()
const emit = defineEmits<{ pictures: [files: File[]], save: [] }>()
/** What is open below the text; one at a time. */
const opened = defineModel<Opened | null>('opened', { required: true })

const chooser = useTemplateRef<{ open: () => void }>('chooser')
const toggle = (what: Opened) => opened.value = opened.value === what ? null : what
</script>

<template>
  <button
    v-if="templates"
    type="button"
    class="tool"
    :aria-expanded="opened === 'templates'"
    @click.stop="toggle('templates')"
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
    @click.stop="toggle('emoji')"
  >
    <PhSmiley
      size="18"
      aria-hidden="true"
    /> Emoji
  </button>
  <template v-if="pictures">
    <button
      type="button"
      class="tool"
      @click="chooser?.open()"
    >
      <PhImage
        size="18"
        aria-hidden="true"
      /> Picture
    </button>
    <PictureChooser
      ref="chooser"
      @chosen="emit('pictures', $event)"
    />
  </template>
  <button
    v-if="saves"
    type="button"
    class="tool"
    @click="emit('save')"
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
    :disabled="!later"
    @click="toggle('later')"
  >
    <PhClock
      size="18"
      aria-hidden="true"
    /> Later
  </button>
</template>

<style scoped>
.tool { display: inline-flex; align-items: center; gap: var(--space-2); border: 0; background: none; color: var(--quiet); cursor: pointer; padding: var(--space-2) 0; }
.tool:hover { color: var(--ink); }
.tool:disabled { opacity: 0.45; cursor: default; }
</style>

<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { useMe } from '~/stores/me'
import { shortDay } from '~/words/time'

/** A link that was made just now. It is shown this once. */
const { name, link, endsAt } = defineProps<{ name: string, link: string, endsAt: number }>()
const emit = defineEmits<{ close: [] }>()

const me = useMe()
const until = computed(() => shortDay(endsAt, me.me!.zone))
const { copy, copied, isSupported } = useClipboard()
</script>

<template>
  <Dialog
    visible
    modal
    :header="`A link for ${name}`"
    :style="{ width: '32rem' }"
    @update:visible="emit('close')"
  >
    <div class="shown">
      <p>Give it to {{ name }} by a way that only they read. It works once, until {{ until }}, and is not shown again.</p>
      <input
        class="plain-field link"
        readonly
        :value="link"
        aria-label="The link"
        autofocus
        @focus="($event.target as HTMLInputElement).select()"
      >
      <p class="ways">
        <Button
          v-if="isSupported"
          :label="copied ? 'Copied' : 'Copy it'"
          @click="copy(link)"
        />
        <button
          type="button"
          class="plain-button"
          @click="emit('close')"
        >
          Done
        </button>
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
.shown { display: grid; gap: var(--space-5); }
.link { width: 100%; }
.ways { display: flex; gap: var(--space-6); align-items: center; }
</style>

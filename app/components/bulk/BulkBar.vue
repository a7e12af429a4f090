<script setup lang="ts">
/** How far a bulk text has come: sent, refused at the last moment, and still to come. */
const { sent, refused, all } = defineProps<{ sent: number, refused: number, all: number }>()
const share = (count: number) => `${all === 0 ? 0 : count / all * 100}%`
</script>

<template>
  <span
    class="bar"
    role="img"
    :aria-label="`${sent.toLocaleString('en-US')} of ${all.toLocaleString('en-US')} sent${refused > 0 ? `, ${refused.toLocaleString('en-US')} refused` : ''}`"
  ><span
    class="sent"
    :style="{ width: share(sent) }"
  /><span
    class="refused"
    :style="{ width: share(refused) }"
  /></span>
</template>

<style scoped>
.bar { display: flex; height: 10px; background: var(--hover); border-radius: var(--round-small); overflow: hidden; }
.sent { background: var(--accent); transition: width 300ms; }
.refused { background: var(--wrong); }
</style>

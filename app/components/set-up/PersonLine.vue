<script setup lang="ts">
/** Somebody in a list of people: who it is, as what and where, how it stands, and what can be done. */
defineProps<{ name: string, title: string, mail: string, role: string, teams: string | null, standing: string, over?: boolean }>()
</script>

<template>
  <li class="row">
    <span>
      <strong>{{ name }}</strong> <span class="quiet">{{ title }}</span><br>
      <span class="quiet small mail">{{ mail }}</span>
    </span>
    <span>
      {{ role }}<br>
      <span
        v-if="teams"
        class="quiet small"
      >{{ teams }}</span>
    </span>
    <span :class="['small', over ? 'over' : 'quiet']">{{ standing }}</span>
    <span class="ways">
      <slot />
    </span>
  </li>
</template>

<style scoped>
.row { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) minmax(0, 1.2fr) 18rem; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; align-items: baseline; }
.mail { overflow-wrap: anywhere; }
.ways { display: flex; gap: var(--space-6); flex-wrap: wrap; }
.over { color: var(--wrong); }
@media (max-width: 700px) { .row { grid-template-columns: minmax(0, 1fr); } }
</style>

<script setup lang="ts">
import { useMe } from '~/stores/me'

/** The rooms of Set-up that are for me. */
const ROOMS = [
  { name: 'Dispositions', to: '/set-up/dispositions', forLeads: true },
  { name: 'Fields of your own', to: '/set-up/fields', forLeads: false },
  { name: 'Pipelines', to: '/set-up/pipelines', forLeads: false },
  { name: 'Lines', to: '/set-up/lines', forLeads: false },
  { name: 'Rules of the house', to: '/set-up/rules', forLeads: false },
]
const me = useMe()
const rooms = computed(() => ROOMS.filter(({ forLeads }) => forLeads || me.me?.role === 'admin'))
</script>

<template>
  <nav
    v-if="rooms.length > 1"
    class="rooms"
    aria-label="Set-up"
  >
    <NuxtLink
      v-for="room in rooms"
      :key="room.to"
      :to="room.to"
    >
      {{ room.name }}
    </NuxtLink>
  </nav>
</template>

<style scoped>
.rooms { display: flex; gap: 1.2rem; }
.rooms a { color: var(--quiet); text-decoration: none; }
.rooms a.router-link-active { color: var(--ink); font-weight: 700; }
</style>

<script setup lang="ts">
import { useMe } from '~/stores/me'

/** The rooms of Set-up that are for me. */
const ROOMS = [
  { name: 'Overview', to: '/set-up', forLeads: true },
  { name: 'People', to: '/set-up/people', forLeads: false },
  { name: 'Rights', to: '/set-up/rights', forLeads: false },
  { name: 'Dispositions', to: '/set-up/dispositions', forLeads: true },
  { name: 'Custom fields', to: '/set-up/fields', forLeads: false },
  { name: 'Pipelines', to: '/set-up/pipelines', forLeads: false },
  { name: 'Lines', to: '/set-up/lines', forLeads: false },
  { name: 'Carriers', to: '/set-up/carriers', forLeads: false },
  { name: 'Texting', to: '/set-up/texting', forLeads: false },
  { name: 'Money', to: '/set-up/money', forLeads: false },
  { name: 'Hours', to: '/set-up/hours', forLeads: false },
  { name: 'House rules', to: '/set-up/rules', forLeads: false },
  { name: 'Audit log', to: '/set-up/audit', forLeads: false },
  { name: 'What got stuck', to: '/set-up/stuck', forLeads: false },
]
const me = useMe()
const rooms = computed(() => ROOMS.filter(({ forLeads }) => forLeads || me.me?.role === 'admin'))
</script>

<template>
  <RoomNav
    v-if="rooms.length > 1"
    place="Set-up"
    :rooms="rooms"
  />
</template>

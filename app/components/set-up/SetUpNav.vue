<script setup lang="ts">
import type { Permission } from '~~/shared/permissions'
import { useMe } from '~/stores/me'

/** The rooms of Set-up that are for me. */
const ROOMS: { name: string, to: string, needs: Permission | null }[] = [
  { name: 'Overview', to: '/set-up', needs: null },
  { name: 'People', to: '/set-up/people', needs: 'people.edit' },
  { name: 'Rights', to: '/set-up/rights', needs: 'people.edit' },
  { name: 'Dispositions', to: '/set-up/dispositions', needs: 'disposition.edit' },
  { name: 'Custom fields', to: '/set-up/fields', needs: 'field.edit' },
  { name: 'Pipelines', to: '/set-up/pipelines', needs: 'pipeline.edit' },
  { name: 'Lines', to: '/set-up/lines', needs: 'line.edit' },
  { name: 'Carriers', to: '/set-up/carriers', needs: 'carrier.edit' },
  { name: 'Papers', to: '/set-up/papers', needs: 'carrier.edit' },
  { name: 'Texting', to: '/set-up/texting', needs: 'texting.switch' },
  { name: 'Money', to: '/set-up/money', needs: 'money.edit' },
  { name: 'Hours', to: '/set-up/hours', needs: 'rules.edit' },
  { name: 'House rules', to: '/set-up/rules', needs: 'rules.edit' },
  { name: 'Audit log', to: '/set-up/audit', needs: 'audit.see' },
  { name: 'What got stuck', to: '/set-up/stuck', needs: 'stuck.see' },
]
const me = useMe()
const rooms = computed(() => ROOMS.filter(({ needs }) => needs === null || me.may(needs)))
</script>

<template>
  <RoomNav
    v-if="rooms.length > 1"
    place="Set-up"
    :rooms="rooms"
  />
</template>

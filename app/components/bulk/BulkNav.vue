<script setup lang="ts">
/** The rooms of Bulk. */
const ROOMS = [
  { name: 'Bulk texts', to: '/bulk' },
  { name: 'Groups', to: '/groups' },
]
</script>

<template>
  <RoomNav
    place="Bulk"
    :rooms="ROOMS"
  />
</template>

<script setup lang="ts">
/** The rooms of Calling. */
const ROOMS = [
  { name: 'Call rounds', to: '/calling' },
  { name: 'Recorded messages', to: '/calling/spoken' },
  { name: 'How I call', to: '/calling/how' },
]
</script>

<template>
  <RoomNav
    place="Calling"
    :rooms="ROOMS"
  />
</template>

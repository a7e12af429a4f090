<script setup lang="ts">
await navigateTo('/records/leads', { replace: true })
</script>

<template>
  <div />
</template>

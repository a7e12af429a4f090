<script setup lang="ts">
import { useMe } from '~/stores/me'

const me = useMe()
const route = useRoute()
/** A helper from outside has a frame without anything of people in it; a page may have another. */
const layout = computed(() => me.me?.role === 'helper' && !route.meta.layout ? 'helper' : undefined)
</script>

<template>
  <NuxtLayout :name="layout">
    <NuxtPage />
  </NuxtLayout>
</template>

<script setup lang="ts">
definePageMeta({ layout: 'bare' })
useHead({ title: 'Sign in to Plauder' })
const route = useRoute()

/** Only to places of our own: "//elsewhere" is another one's. */
const wanted = computed(() => typeof route.query.to === 'string' && /^\/(?![/\\])/.test(route.query.to) ? route.query.to : '/')
</script>

<template>
  <main class="sheet">
    <p class="name">
      Plauder
    </p>
    <h1>Good to have you back</h1>
    <p class="quiet">
      Texts and calls with the people you work for, all in one place.
    </p>
    <SignInForm @done="navigateTo(wanted)" />
  </main>
</template>

<style scoped>
.sheet { max-width: 24rem; margin: 14vh auto 0; padding: 0 1.5rem; display: grid; gap: 0.75rem; }
.name { font-family: var(--heading); font-weight: 800; font-size: 1.5rem; color: var(--mulberry); }
.quiet { margin-bottom: 0.75rem; }
</style>

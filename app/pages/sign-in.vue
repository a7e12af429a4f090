<script setup lang="ts">
import type { Beginning } from '~~/shared/schemas/begin'
import { api } from '~/composables/api'

definePageMeta({ layout: 'bare' })
useHead({ title: 'Sign in to Plauder' })
const route = useRoute()

/** Nobody has made the firm yet, so nobody can sign in. */
const open = ref(false)
void api<Beginning>('/api/begin', { asAnybody: true }).then(beginning => open.value = beginning.open, () => {})

/** Only to places of our own: "//elsewhere" is another one's. */
const wanted = computed(() => typeof route.query.to === 'string' && /^\/(?![/\\])/.test(route.query.to) ? route.query.to : '/')
</script>

<template>
  <main class="sheet">
    <p class="name">
      Plauder
    </p>
    <template v-if="open">
      <h1>Nobody has begun here yet</h1>
      <p>
        Open the address that the start of Plauder has printed: it ends in <code>/begin#…</code> and a key. With it you make your firm, and yourself its admin.
      </p>
    </template>
    <template v-else>
      <h1>Good to have you back</h1>
      <p class="quiet">
        Texts and calls with the people you work for, all in one place.
      </p>
      <SignInForm @done="navigateTo(wanted)" />
    </template>
  </main>
</template>

<style scoped>
.sheet { max-width: 24rem; margin: 14vh auto 0; padding: 0 var(--space-8); display: grid; gap: var(--space-5); }
.name { font-family: var(--heading); font-weight: 800; font-size: 1.5rem; color: var(--accent); }
.quiet { margin-bottom: var(--space-5); }
</style>

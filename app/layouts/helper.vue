<script setup lang="ts">
import { useLeaving } from '~/stores/leaving'
import { useMe } from '~/stores/me'

/** For a helper from outside: the places of Set-up, and nothing that asks for people, calls or texts. */
const me = useMe()
const leaving = useLeaving()
useHead({ title: 'Plauder' })
</script>

<template>
  <div class="frame">
    <PlaceRail />
    <div class="desk">
      <HeaderLine />
      <main
        id="page"
        tabindex="-1"
      >
        <slot />
      </main>
    </div>
    <LazyLeaveQuestion v-if="leaving.asked" />
    <LazySignInAgain v-if="me.expired" />
  </div>
</template>

<style scoped>
.frame { display: grid; grid-template-columns: 84px minmax(0, 1fr); min-height: 100vh; }
.desk { min-width: 0; }
@media (max-width: 700px) {
  .frame { grid-template-columns: minmax(0, 1fr); }
  .desk { padding-bottom: 60px; }
}
</style>

<script setup lang="ts">
import { useMe } from '~/stores/me'

/** Over the page, which stays as it was: nothing that was written is lost. */
const me = useMe()
const reload = () => window.location.assign('/')
</script>

<template>
  <Dialog
    visible
    modal
    :closable="false"
    :header="me.replacedBy ? 'Somebody else is signed in' : 'Your sign-in has ended'"
    :style="{ width: '24rem' }"
  >
    <p class="quiet explain">
      <template v-if="me.replacedBy">
        {{ me.replacedBy }} has signed in in another tab of this browser, so nothing more is done here under your name.
      </template>
      The page behind this, with what you wrote, stays as it is.
    </p>
    <SignInForm />
    <button
      v-if="me.replacedBy"
      type="button"
      class="plain-button"
      @click="reload"
    >
      Leave this page, and go on as {{ me.replacedBy }}
    </button>
  </Dialog>
</template>

<style scoped>
.explain { margin-bottom: var(--space-6); }
.plain-button { margin-top: var(--space-6); }
</style>

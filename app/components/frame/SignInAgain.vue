<script setup lang="ts">
/** Over the page, which stays as it was: nothing that was written is lost. */
</script>

<template>
  <Dialog
    visible
    modal
    :closable="false"
    header="Your sign-in has ended"
    :style="{ width: '24rem' }"
  >
    <p class="quiet explain">
      The page behind this, with what you wrote, stays as it is.
    </p>
    <SignInForm />
  </Dialog>
</template>

<style scoped>
.explain { margin-bottom: 1rem; }
</style>

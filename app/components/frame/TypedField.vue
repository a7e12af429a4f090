<script setup lang="ts">
/** The input of a day or a time, with what is wrong where it cannot be read. What else is given to it goes to the input. */
const { text, problem, isSaid, roomy = false } = defineProps<{
  text: string
  /** What is wrong with it, and whether it is time to say so: nobody is told while they type. */
  problem: string
  isSaid: boolean
  /** As large as the other fields of a form. */
  roomy?: boolean
}>()
const emit = defineEmits<{ typed: [text: string], left: [] }>()
defineOptions({ inheritAttrs: false })

const id = useId()
const field = useTemplateRef<HTMLElement>('field')
const typed = (event: Event) => emit('typed', (event.target as HTMLInputElement).value)
// a form that is sent by Enter does not go, and says why
watch(() => problem, now => field.value?.querySelector('input')?.setCustomValidity(now), { flush: 'post' })
const said = computed(() => isSaid ? problem : '')
const wrong = computed(() => said.value ? { 'aria-invalid': true, 'aria-describedby': id } as const : {})
</script>

<template>
  <span
    ref="field"
    class="typed"
    :class="{ roomy }"
  >
    <span class="line"><InputText
                         v-if="roomy"
                         v-bind="{ ...$attrs, ...wrong }"
                         :model-value="text"
                         :invalid="!!said || !!$attrs.invalid"
                         autocomplete="off"
                         @input="typed"
                         @blur="emit('left')"
                       />
      <input
        v-else
        v-bind="{ ...$attrs, ...wrong }"
        :value="text"
        class="plain-field"
        type="text"
        autocomplete="off"
        @input="typed"
        @blur="emit('left')"
      > <slot /></span>
    <span
      v-if="said"
      :id="id"
      class="field-error"
      role="alert"
    >{{ said }}</span>
  </span>
</template>

<style scoped>
.typed { display: inline-grid; }
.line { position: relative; display: flex; align-items: center; }
.line > input { flex: 1; min-width: 0; }
.typed.roomy { display: grid; }
/* as wide as the field, and no wider */
.field-error { width: 0; min-width: 100%; }
</style>

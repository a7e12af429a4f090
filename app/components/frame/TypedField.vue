<script setup lang="ts">
/** The input of a day or a time, with what is wrong where it cannot be read. What else is given to it goes to the input. */
const { text, problem, roomy = false } = defineProps<{ text: string, problem: string, /** As large as the other fields of a form. */ roomy?: boolean }>()
const emit = defineEmits<{ typed: [text: string], left: [] }>()
defineOptions({ inheritAttrs: false })

const id = useId()
const field = useTemplateRef<HTMLElement>('field')
const typed = (event: Event) => emit('typed', (event.target as HTMLInputElement).value)
// a form that is sent by Enter says it as well, and does not go
watch(() => problem, wrong => (field.value?.querySelector('input') as HTMLInputElement).setCustomValidity(wrong), { flush: 'post' })
const wrong = computed(() => problem ? { 'aria-invalid': true, 'aria-describedby': id } as const : {})
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
                         :invalid="!!problem || !!$attrs.invalid"
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
      v-if="problem"
      :id="id"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
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

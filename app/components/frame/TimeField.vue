<script setup lang="ts">
import { readTime } from '~~/core/hours/typed'
import { useTyped } from '~/composables/typed'
import { timeOfDay } from '~/words/time'

/** A time of day, kept as `15:30`, typed in any usual way and written as the reader writes times. */
const time = defineModel<string>({ required: true })
defineOptions({ inheritAttrs: false })

const { text, unreadable, isSaid, take, leave } = useTyped(time, { read: readTime, say: timeOfDay })
const problem = computed(() => unreadable.value ? `“${text.value.trim()}” is not a time. Write one such as ${timeOfDay('15:30')}.` : '')
</script>

<template>
  <TypedField
    v-bind="$attrs"
    :text="text"
    :problem="problem"
    :is-said="isSaid"
    size="8"
    @typed="take"
    @left="leave"
  />
</template>

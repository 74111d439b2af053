<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { Knob, Recording } from '@/api/client'
import { useJob } from '@/stores/job'

/** Which knob was turned in a recording of steps, and what is written at its ends: so that Levels uses the measured gain. */
const props = defineProps<{ recording: Recording; knobs: readonly Knob[] }>()
const emit = defineEmits<{ take: [device: string, control: string, scale: [number, number] | null] }>()
const job = useJob()
const asked = props.knobs.findIndex(({ control }) => control === props.recording.asked.control)
const chosen = ref(asked >= 0 ? asked : props.knobs.length - 1)
const own = ref(false)
const lowest = ref<number | ''>(0)
const highest = ref<number | ''>(100)
const knob = computed(() => props.knobs[chosen.value])
const scale = computed<[number, number] | null>(() =>
  own.value ? [Number(lowest.value), Number(highest.value)] : null,
)
</script>

<template>
  <form v-if="knob" class="law" @submit.prevent="emit('take', knob.device, knob.control, scale)">
    <label class="field"
      ><span>The knob that was turned</span
      ><select v-model.number="chosen">
        <option v-for="(item, index) in knobs" :key="item.device + item.control" :value="index">
          {{ item.label }}
        </option>
      </select></label
    >
    <label class="field"
      ><span>Its marks are</span
      ><select v-model="own">
        <option :value="false">dB, from {{ knob.minimum_db }} to {{ knob.maximum_db }}</option>
        <option :value="true">its own numbers</option>
      </select></label
    >
    <span v-if="own" class="ends">
      <label class="field"><span>lowest</span><input v-model.number="lowest" type="number" /></label>
      <label class="field"><span>highest</span><input v-model.number="highest" type="number" /></label>
    </span>
    <Button type="submit" size="small" :disabled="job.readOnly">Use measured gain</Button>
  </form>
</template>

<style scoped>
.law {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: end;
}
.ends {
  display: flex;
  gap: 0.4rem;
}
.ends .field {
  width: 4.5rem;
}
</style>

<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

/** The day runs late: by how much; all that is still to come moves along. */
defineProps<{ disabled: boolean }>()
const emit = defineEmits<{ slip: [by: number] }>()
const isOpen = ref(false)
const by = ref(25)
const CHOICES = [10, 15, 25, 45]

function slip(minutes: number) {
  isOpen.value = false
  if (Number.isFinite(minutes) && minutes) emit('slip', Math.round(minutes))
}
</script>

<template>
  <div class="slip no-print">
    <button v-if="!isOpen" type="button" class="tap open" :disabled="disabled" @click="isOpen = true">
      We are late…
    </button>
    <form v-else @submit.prevent="slip(by)">
      <span id="slip-by">Later by</span>
      <button v-for="minutes in CHOICES" :key="minutes" class="tap" type="button" @click="slip(minutes)">
        {{ minutes }} min
      </button>
      <label
        ><span class="visually-hidden">Minutes, with a minus for earlier</span
        ><input v-model.number="by" class="plain-input num" type="number" min="-600" max="600" step="1" />
        min</label
      >
      <Button type="submit" size="small">Shift the rest of the day</Button>
      <Button size="small" text @click="isOpen = false">Cancel</Button>
    </form>
  </div>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
button.open {
  width: 100%;
  font-weight: 700;
}
input {
  width: 5rem;
}
</style>

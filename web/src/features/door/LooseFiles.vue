<script setup lang="ts">
import { useLooseFiles } from '@/composables/useLooseFiles'
import { useJob } from '@/stores/job'

/** Pages for files that belong to no job: they show what a job's pages show. */
const { id, problem } = useLooseFiles()
const job = useJob()
</script>

<template>
  <p v-if="problem || job.problem" class="is-stop" role="alert">{{ problem || job.problem }}</p>
  <RouterView v-if="id && job.state?.job === id" />
</template>

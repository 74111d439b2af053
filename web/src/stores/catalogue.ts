import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'

import { api, wordsOf, type Catalogue } from '@/api/client'
import { useJob } from '@/stores/job'

/** What there is to choose from; it does not change while the program runs. */
export const useCatalogue = defineStore('catalogue', () => {
  const value = shallowRef<Catalogue | null>(null)
  async function load() {
    try {
      value.value ??= await api.catalogue()
    } catch (error) {
      useJob().problem = wordsOf(error)
    }
  }
  /** Classes of devices by what they are for. */
  const kinds = computed(() => {
    const found = new Map<string, Catalogue['classes']>()
    for (const item of value.value?.classes ?? [])
      found.set(item.group, [...(found.get(item.group) ?? []), item])
    return [...found]
  })
  return { value, kinds, load }
})

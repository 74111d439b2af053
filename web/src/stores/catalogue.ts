import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

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
  return { value, load }
})

import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { api, type Catalogue } from '@/api/client'

/** What there is to choose from; it does not change while the program runs. */
export const useCatalogue = defineStore('catalogue', () => {
  const value = shallowRef<Catalogue | null>(null)
  async function load() {
    value.value ??= await api.catalogue()
  }
  return { value, load }
})

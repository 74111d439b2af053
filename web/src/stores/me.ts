import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { api, type Me } from '@/api/client'

/** Who sits here: whoever is at the machine itself may do everything, a telephone what its key is for. */
export const useMe = defineStore('me', () => {
  const me = ref<Me>({ name: '', access: null })
  const look = () =>
    api.me().then(
      (found) => (me.value = found),
      () => undefined, // refused: the server says so to everything else too
    )
  const mayEdit = computed(() => me.value.access === null || me.value.access === 'crew')
  const isOwner = computed(() => me.value.access === null)
  const does = computed(() =>
    me.value.access === 'walk' ? 'may walk and log, and change nothing else' : 'may look, and change nothing',
  )
  return { me, mayEdit, isOwner, does, look }
})

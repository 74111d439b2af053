import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { api, type ClassFile, type OwnClass } from '@/api/client'

/** Classes of one's own that belong to no job. What goes wrong is thrown, and told by who asked. */
export const useOwnEquipment = defineStore('equipment', () => {
  const classes = shallowRef<readonly OwnClass[] | null>(null)

  async function load() {
    classes.value = await api.equipment()
  }
  async function save(files: ClassFile[]) {
    const saved = await api.saveEquipment(files)
    await load()
    return saved
  }
  async function saveArchive(file: File) {
    const saved = await api.saveArchive(file)
    await load()
    return saved
  }
  async function remove(id: string) {
    await api.deleteClass(id)
    await load()
  }
  return { classes, load, save, saveArchive, remove }
})

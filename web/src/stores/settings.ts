import { defineStore } from 'pinia'
import { ref, watchEffect } from 'vue'

export const THEMES = [
  { id: 'light', label: 'Light' },
  { id: 'dark', label: 'Dark' },
  { id: 'sun', label: 'Bright sun' },
] as const
export type Theme = (typeof THEMES)[number]['id']

/** What one person on this machine likes. */
export const useSettings = defineStore('settings', () => {
  const kept = localStorage.getItem('theme')
  const theme = ref<Theme>(THEMES.find(({ id }) => id === kept)?.id ?? 'light')
  watchEffect(() => {
    document.documentElement.dataset.theme = theme.value
    localStorage.setItem('theme', theme.value)
  })
  const who = ref(localStorage.getItem('who') ?? '') // typed once, written beside every edit
  watchEffect(() => localStorage.setItem('who', who.value.trim()))
  /** Pages whose line about what they are for was put away. */
  const hidden = ref<readonly string[]>((localStorage.getItem('hidden') ?? '').split(' ').filter(Boolean))
  watchEffect(() => localStorage.setItem('hidden', hidden.value.join(' ')))
  const hide = (page: string) => (hidden.value = [...hidden.value, page])
  return { theme, who, hidden, hide }
})

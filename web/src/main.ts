import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import './styles/tokens.css'
import './styles/base.css'
import './styles/print.css'

import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { createApp } from 'vue'

import App from './App.vue'
import { openWithoutConnection } from './offline/register'
import { router } from './router'
import { preset } from './styles/preset'

createApp(App)
  .use(createPinia())
  .use(router)
  .use(PrimeVue, { theme: { preset, options: { darkModeSelector: '.never' } } })
  .mount('#app')

openWithoutConnection()

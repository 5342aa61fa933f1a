import '@fontsource-variable/geologica/wght.css'
import '@fontsource-variable/ibm-plex-sans/wght.css'
import '@fontsource-variable/jetbrains-mono/wght.css'
import './styles.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { theme } from './theme'

createApp(App)
  .use(createPinia())
  .use(VueQueryPlugin, {
    queryClientConfig: { defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true } } },
  })
  .use(PrimeVue, { theme })
  .use(router)
  .mount('#app')

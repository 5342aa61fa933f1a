import '@fontsource-variable/geologica/wght.css'
import '@fontsource-variable/ibm-plex-sans/wght.css'
import '@fontsource-variable/jetbrains-mono/wght.css'
import './styles.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import ToastService from 'primevue/toastservice'
import { createApp } from 'vue'
import { fetchCatalogue, installCatalogue } from '@/catalogue/catalogue'
import App from './App.vue'
import { addStages, fetchAhead, router } from './router'
import { theme } from './theme'

function mount(): void {
  createApp(App)
    .use(createPinia())
    .use(VueQueryPlugin, {
      queryClientConfig: { defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true } } },
    })
    .use(PrimeVue, { theme })
    .use(ToastService)
    .use(router)
    .mount('#app')
  void router.isReady().then(fetchAhead)
}

/** Fetch the words before anything is shown; where the server does not answer, say so and try again. */
async function start(): Promise<void> {
  const place = document.querySelector('#app')!
  try {
    installCatalogue(await fetchCatalogue())
    addStages()
    mount()
  } catch (error) {
    place.textContent = `${error instanceof Error ? error.message : String(error)} It is tried again every few seconds.`
    setTimeout(() => void start(), 3000)
  }
}

void start()

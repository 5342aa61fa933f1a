/** Before every test: the kit, and the catalogue as the server would send it; `make test` and `make types` write it. */
import { config } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import catalogue from '~/build/catalogue.json?raw'
import { installCatalogue, type Catalogue } from '@/catalogue/catalogue'

config.global.plugins = [PrimeVue]
installCatalogue(JSON.parse(catalogue) as Catalogue)

/** Before every test: the kit, and the catalogue as the server would send it; `make test` and `make types` write it. */
import { readFileSync } from 'node:fs'
import { config } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { installCatalogue, type Catalogue } from '@/catalogue/catalogue'

config.global.plugins = [PrimeVue]
installCatalogue(JSON.parse(readFileSync('../build/catalogue.json', 'utf8')) as Catalogue)

/** Before every test: the catalogue as the server would send it; `make test` and `make types` write it. */
import { readFileSync } from 'node:fs'
import { installCatalogue, type Catalogue } from '@/catalogue/catalogue'

installCatalogue(JSON.parse(readFileSync('../build/catalogue.json', 'utf8')) as Catalogue)

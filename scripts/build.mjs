// Builds everything: the application, its database's thread with an empty database to start from, and the practice world.
import { execFileSync } from 'node:child_process'
import { cp } from 'node:fs/promises'
import { bundleParts, makeEmptyDatabase } from './bundle.mjs'

execFileSync('npx', ['nuxt', 'build', '--logLevel', 'silent'], { stdio: 'inherit' })
// the part of the folder's lock that is no JavaScript: it is found at run time only, and so not by the build
await cp('node_modules/fs-native-extensions/prebuilds', '.output/server/node_modules/fs-native-extensions/prebuilds', { recursive: true, filter: file => !/prebuilds\/(android|ios|win32)/.test(file) })
await bundleParts('.output/parts')
await makeEmptyDatabase('.output/parts')

// npm run dev: Nuxt's development server, with the database's thread bundled beside it.
import { spawn } from 'node:child_process'
import { resolve } from 'node:path'
import { bundleParts } from './bundle.mjs'
import { secretsFor } from './world.mjs'

await bundleParts('.cache/parts')
spawn('npx', ['nuxt', 'dev', '--host', '127.0.0.1'], { stdio: 'inherit', env: { ...process.env, ...secretsFor(resolve(process.env.PLAUDER_DATA ?? '.data')), PLAUDER_BUILD: resolve('.cache/parts') } })
  .once('exit', code => process.exit(code ?? 0))

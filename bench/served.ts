import { spawn } from 'node:child_process'
import { DEMO_PASSWORD } from '../demo/lay'

/** The built application on a data folder, signed in as Ada. */
export interface Served {
  get: (path: string) => Promise<unknown>
  send: (method: 'POST' | 'PUT', path: string, body: object) => Promise<unknown>
  stop: () => Promise<void>
}

export async function serve(folder: string, port: number): Promise<Served> {
  const server = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: '127.0.0.1',
      PORT: String(port),
      PLAUDER_DATA: folder,
      PLAUDER_LOG: 'silent',
      PLAUDER_PRACTICE: 'off',
    },
  })
  let ended = false
  server.once('exit', () => ended = true)
  // a bench that fails must not leave it behind
  process.once('exit', () => server.kill())
  const address = `http://127.0.0.1:${port}`
  while (!await fetch(`${address}/api/ready`).then(answer => answer.ok, () => false)) {
    if (ended) throw new Error('The application did not start. Start it by hand with the same settings to see why.')
    await new Promise(resolve => setTimeout(resolve, 200))
  }
  const signedIn = await fetch(`${address}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ mail: 'ada@pannier.example', password: DEMO_PASSWORD }),
  })
  const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!
  const ask = async (path: string, options: RequestInit) => {
    const answer = await fetch(`${address}${path}`, { ...options, headers: { cookie, 'content-type': 'application/json' } })
    const body: unknown = await answer.json()
    if (!answer.ok) throw new Error(`${path} answered ${answer.status}: ${JSON.stringify(body).slice(0, 200)}`)
    return body
  }
  return {
    get: path => ask(path, {}),
    send: (method, path, body) => ask(path, { method, body: JSON.stringify(body) }),
    stop: async () => {
      const gone = new Promise(resolve => server.once('exit', resolve))
      server.kill('SIGTERM')
      await gone
    },
  }
}

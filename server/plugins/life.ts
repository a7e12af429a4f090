import { closeStreams } from '../live/streams'
import { ready, shutDown } from '../boot'

/** Starts with the server and ends with it. Open streams would keep it waiting, so they go first. */
export default defineNitroPlugin((nitro) => {
  void ready()
  nitro.hooks.hook('close', shutDown)
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, closeStreams)
})

import { fsyncSync } from 'node:fs'
import { PGlite } from '@electric-sql/pglite'
import { NodeFS } from '@electric-sql/pglite/nodefs'

interface EmscriptenModule {
  NODEFS: {
    stream_ops: { fsync?: (stream: { nfd: number }) => number }
    tryFSOperation: (operation: () => number) => number
  }
}

/**
 * PGlite's file system for Node knows no fsync and PGlite starts with it off: a power cut may lose
 * everything that was acknowledged. This adds the system call, and start parameters that use it.
 */
export class DurableNodeFS extends NodeFS {
  override async init(...[pg, options]: Parameters<NodeFS['init']>): ReturnType<NodeFS['init']> {
    const made = await super.init(pg, options)
    const preRun = made.emscriptenOpts.preRun as ((module: EmscriptenModule) => void)[]
    preRun.push(({ NODEFS }) => {
      NODEFS.stream_ops.fsync = stream => NODEFS.tryFSOperation(() => {
        fsyncSync(stream.nfd)
        return 0
      })
    })
    return made
  }
}

export const DURABLE_START = [
  ...PGlite.defaultStartParams.filter(parameter => parameter !== '-F'),
  '-c', 'fsync=on',
  '-c', 'wal_sync_method=fsync',
]

declare module 'fs-native-extensions' {
  /** Asks for an exclusive lock on an open file; false if another process has it. */
  export function tryLock(file: number): boolean
}

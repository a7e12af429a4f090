/**
 * What stands in a map under a key that people have made. A map's own keys only: every object inherits a `constructor`,
 * and a field may be called so.
 */
export const valueIn = <T>(map: Record<string, T> | null | undefined, key: string): T | undefined =>
  map && Object.hasOwn(map, key) ? map[key] : undefined

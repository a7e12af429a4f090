/** Where a helper from outside may ask at all. Whatever route comes later is closed to them as long as it is not one of these. */
const OPEN = ['/api/me', '/api/live', '/api/colleagues', '/api/set-up']

/** @param path of a request, without its query */
export const isForHelpers = (path: string): boolean => OPEN.some(open => path === open || path.startsWith(`${open}/`))

export const HEADLESS: string
export function chromiumOptions(): { executablePath: string, args: string[] }

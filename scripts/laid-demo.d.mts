export function copyDemo(folder: string): Promise<void>

/** "1 lead", "12 leads", "1,204 leads". */
export const many = (count: number, one: string, several: string): string =>
  `${count.toLocaleString('en-US')} ${count === 1 ? one : several}`

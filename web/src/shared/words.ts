/** A number with its noun, such as "1 piece" or "240 pieces". */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

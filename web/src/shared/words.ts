/** A whole number in groups of three, as the server prints it. */
export const thousands = (n: number) => n.toLocaleString("fr-FR").replace(/\s/g, "\u202f");

/** A number with its noun, such as "1 piece" or "240 pieces". */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${thousands(n)} ${n === 1 ? one : many}`;
}

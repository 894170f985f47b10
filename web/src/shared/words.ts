/** A whole number in groups of three, as the server prints it. */
export const thousands = (n: number) =>
  n.toLocaleString("en-GB", { maximumFractionDigits: 6 }).replace(/,/g, "\u202f");

/** A number with its noun, such as "1 piece" or "240 pieces". */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${thousands(n)} ${n === 1 ? one : many}`;
}

/** A moment by the clock of who looks: "28 Nov 13:07". */
export function moment(at: string): string {
  const date = new Date(at);
  const day = date.toLocaleDateString("en-GB", { day: "numeric", month: "short" });
  return `${day} ${date.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}`;
}

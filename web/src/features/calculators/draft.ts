import type { Calculator, Units } from "../../api/client";

/** What is entered: numbers are in the core's units, text is read as it is written. */
export type Given = Record<string, unknown>;
export type Path = readonly (string | number)[];
/** A declared field of a calculator. */
export type Field = Calculator["fields"][number];

/** What stands at a path; undefined where nothing does. */
export function at(tree: unknown, path: Path): unknown {
  let here = tree;
  for (const step of path) here = (here as Record<string | number, unknown> | null | undefined)?.[step];
  return here;
}

/** The tree with another value at a path; undefined takes it out. Groups that are not there are made. */
export function put(tree: unknown, path: Path, value: unknown): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return value;
  if (Array.isArray(tree)) {
    const copy = [...tree];
    copy[Number(step)] = put(copy[Number(step)], rest, value);
    return copy;
  }
  const known = (tree ?? {}) as Record<string, unknown>;
  const next = put(known[step], rest, value);
  const others = Object.entries(known).filter(([name]) => name !== step);
  return Object.fromEntries(next === undefined ? others : [...others, [step, next]]);
}

const isEmpty = (value: unknown): boolean =>
  value === undefined ||
  value === "" ||
  value === null ||
  (typeof value === "object" && !Array.isArray(value) && Object.values(value).every(isEmpty));

/** What is asked with: without what was left empty, and without what does not matter. */
export function asked(fields: readonly Field[], given: Given): Given {
  const found: Given = {};
  for (const field of fields) {
    const value = given[field.name];
    if (!matters(field, given) || isEmpty(value)) continue;
    if (field.many && Array.isArray(value))
      found[field.name] = field.fields ? value.map((row) => asked(field.fields ?? [], row as Given)) : value;
    else found[field.name] = field.fields ? asked(field.fields, value as Given) : value;
  }
  return found;
}

/** A field matters where what it waits on has one of its values; what is not chosen counts as no. */
export function matters(field: Field, given: Given): boolean {
  return Object.entries(field.when).every(([name, values]) =>
    values.includes((given[name] ?? false) as string | boolean),
  );
}

const BARE = /^[\s\d.,/+−-]+$/;

/** What was typed in other units says so from now on: a switch of units reads nothing anew. */
export function withUnits(fields: readonly Field[], given: Given): Given {
  const said = (field: Field, value: unknown): unknown => {
    if (Array.isArray(value)) return value.map((one) => said({ ...field, many: false }, one));
    if (field.fields && value && typeof value === "object") return withUnits(field.fields, value as Given);
    const isBare = field.kind === "quantity" && field.unit && typeof value === "string" && BARE.test(value);
    return isBare ? `${value.trim()} ${field.unit}` : value;
  };
  return Object.fromEntries(
    Object.entries(given).map(([name, value]) => {
      const field = fields.find((f) => f.name === name);
      return [name, field ? said(field, value) : value];
    }),
  );
}

/** Rows as they are copied out of a sheet; null for a single figure, which is pasted as ever. */
export function rowsOf(text: string): string[][] | null {
  const lines = text.replace(/\r/g, "").split("\n");
  while (lines.at(-1)?.trim() === "") lines.pop();
  const rows = lines.map((one) => one.split(/[\t;]/).map((cell) => cell.trim()));
  return rows.length > 1 || (rows[0]?.length ?? 0) > 1 ? rows : null;
}

/** Rows put in from a cell on, further rows added. */
export function pasted(
  rows: readonly Given[],
  names: readonly string[],
  row: number,
  from: number,
  cells: string[][],
) {
  const copy = rows.map((r) => ({ ...r }));
  cells.forEach((line, i) => {
    const into: Given = { ...copy[row + i] };
    line.forEach((cell, k) => {
      const name = names[from + k];
      if (name !== undefined) into[name] = cell;
    });
    copy[row + i] = into;
  });
  return copy;
}

/** The way to a calculator with its figures, to be sent to a colleague. */
export function linkOf(name: string, given: Given, units: Units): string {
  const query = new URLSearchParams({ given: JSON.stringify(given), ...(units === "inch" ? { units } : {}) });
  return `/calculators/${name}?${query}`;
}

/** The figures that a link brings; null where it brings none that can be read. */
export function givenOf(query: URLSearchParams): Given | null {
  try {
    const found: unknown = JSON.parse(query.get("given") ?? "null");
    return found && typeof found === "object" && !Array.isArray(found) ? (found as Given) : null;
  } catch {
    return null;
  }
}

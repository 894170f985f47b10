import { describe, expect, it } from "vitest";
import { asked, at, type Field, givenOf, linkOf, matters, pasted, put, rowsOf, withUnits } from "./draft";

const field = (name: string, more: Partial<Field> = {}): Field => ({
  name,
  label: name,
  help: "",
  kind: "quantity",
  required: true,
  many: false,
  unit: "mm",
  options: {},
  when: {},
  fields: null,
  ...more,
});

describe("put", () => {
  it("changes one place and leaves the tree it was given", () => {
    const tree = { stack: [{ mass: 1 }, { mass: 2 }], chuck: { most: 3 } };
    expect(put(tree, ["stack", 1, "mass"], "5")).toEqual({
      stack: [{ mass: 1 }, { mass: "5" }],
      chuck: { most: 3 },
    });
    expect(put(tree, ["chuck", "most"], undefined)).toEqual({ stack: tree.stack, chuck: {} });
    expect(put({}, ["breaker", "from"], "1")).toEqual({ breaker: { from: "1" } });
    expect(tree.stack[1]).toEqual({ mass: 2 });
    expect(at(tree, ["stack", 0, "mass"])).toBe(1);
    expect(at(tree, ["none", 0, "mass"])).toBeUndefined();
  });
});

describe("asked", () => {
  const fields = [
    field("kind", { kind: "choice" }),
    field("width", { when: { kind: ["block"] } }),
    field("angle", { when: { kind: ["pie"] } }),
    field("breaker", { kind: "group", required: false, fields: [field("from"), field("to")] }),
    field("rows", { kind: "group", many: true, fields: [field("rpm"), field("own", { required: false })] }),
  ];

  it("leaves out what is empty and what does not matter, and keeps rows", () => {
    const given = {
      kind: "block",
      width: 40,
      angle: 118,
      breaker: { from: "", to: "" },
      rows: [{ rpm: "", own: "" }, { rpm: 5 }],
    };
    expect(asked(fields, given)).toEqual({ kind: "block", width: 40, rows: [{}, { rpm: 5 }] });
  });

  it("takes a flag that is not set as no", () => {
    const wire = field("wire", { when: { internal: [false] } });
    expect([matters(wire, {}), matters(wire, { internal: true })]).toEqual([true, false]);
  });
});

describe("units", () => {
  it("says the unit of what was typed bare, in rows too, and leaves the rest", () => {
    const fields = [
      field("low"),
      field("high"),
      field("name", { kind: "text" }),
      field("rows", { kind: "group", many: true, fields: [field("rpm", { unit: "rpm" })] }),
      field("share", { unit: "" }),
    ];
    const given = {
      low: "1 7/16",
      high: "3 in",
      name: "12",
      rows: [{ rpm: "800" }, { rpm: 9 }],
      share: "0.3",
    };
    expect(withUnits(fields, given)).toEqual({
      low: "1 7/16 mm",
      high: "3 in",
      name: "12",
      rows: [{ rpm: "800 rpm" }, { rpm: 9 }],
      share: "0.3",
    });
  });
});

describe("pasting", () => {
  it("reads rows as a sheet copies them, and leaves a single figure alone", () => {
    expect(rowsOf("0\t46200\r\n800\t42900\r\n")).toEqual([
      ["0", "46200"],
      ["800", "42900"],
    ]);
    expect(rowsOf("0;46200")).toEqual([["0", "46200"]]);
    expect(rowsOf("46200")).toBeNull();
    expect(rowsOf("46 200\n")).toBeNull();
  });

  it("fills from a cell on, adds rows, and drops what has no column", () => {
    const rows = [
      { rpm: 0, grip: 1 },
      { rpm: 5, grip: 2 },
    ];
    expect(
      pasted(rows, ["rpm", "grip"], 1, 1, [
        ["7", "x"],
        ["8", "y"],
      ]),
    ).toEqual([{ rpm: 0, grip: 1 }, { rpm: 5, grip: "7" }, { grip: "8" }]);
  });
});

describe("a link", () => {
  it("brings the same figures back, and nothing where it was spoilt", () => {
    const given = { low: 83.965, rows: [{ name: "a & b" }] };
    const query = new URL(`http://x${linkOf("drift", given, "inch")}`).searchParams;
    expect(givenOf(query)).toEqual(given);
    expect(query.get("units")).toBe("inch");
    expect(givenOf(new URLSearchParams({ given: "{" }))).toBeNull();
    expect(givenOf(new URLSearchParams({ given: "[1]" }))).toBeNull();
    expect(givenOf(new URLSearchParams())).toBeNull();
  });
});

import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Picker } from "./Picker";

const lathes = [
  { value: "l3", label: "Lathe 3" },
  { value: "l5", label: "Lathe 5" },
];

describe("Picker", () => {
  it("cannot be opened before its options have come", () => {
    const { rerender } = render(<Picker label="Machine" value={null} options={[]} onChange={() => {}} />);
    expect(screen.getByRole("button", { name: /Machine/ })).toBeDisabled();
    rerender(<Picker label="Machine" value={null} options={lathes} onChange={() => {}} />);
    expect(screen.getByRole("button", { name: /Machine/ })).toBeEnabled();
  });

  const choose = async (key: string) => {
    const onChange = vi.fn();
    render(<Picker label="Machine" value="l3" options={lathes} onChange={onChange} />);
    const user = userEvent.setup();
    await user.tab();
    await user.keyboard("{ArrowDown}");
    await screen.findByRole("option", { name: "Lathe 5" });
    await user.keyboard(`{${key}}{Enter}`);
    return onChange;
  };

  it("is worked by keys alone", async () => {
    expect(await choose("End")).toHaveBeenCalledExactlyOnceWith("l5");
  });

  it("says nothing when the same is taken again", async () => {
    expect(await choose("Home")).not.toHaveBeenCalled();
  });
});

import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { QuantityField } from "./QuantityField";

function setUp(more: { waiting?: string; isInvalid?: boolean } = {}) {
  const on = { onType: vi.fn(), onKeep: vi.fn(), onCancel: vi.fn(), onNext: vi.fn() };
  render(
    <>
      <QuantityField label="Depth, mm" shown="22.00" exact="22.0000004" {...on} {...more} />
      <button type="button">elsewhere</button>
    </>,
  );
  return { ...on, field: screen.getByLabelText<HTMLInputElement>("Depth, mm"), user: userEvent.setup() };
}

async function replaceWith(user: ReturnType<typeof userEvent.setup>, field: HTMLElement, text: string) {
  await user.click(field);
  await user.clear(field);
  await user.type(field, text);
}

describe("QuantityField", () => {
  it("shows the rounded figure and edits the exact one", async () => {
    const { field, user } = setUp();
    expect(field.value).toBe("22.00");
    await user.click(field);
    expect(field.value).toBe("22.0000004");
  });

  it("changes nothing when it is left untouched", async () => {
    const { field, user, onKeep, onType } = setUp();
    await user.click(field);
    await user.click(screen.getByText("elsewhere"));
    expect(onKeep).not.toHaveBeenCalled();
    expect(onType).not.toHaveBeenCalled();
    expect(field.value).toBe("22.00");
  });

  it("previews every key and keeps once on Enter, then moves on", async () => {
    const { field, user, onType, onKeep, onNext } = setUp();
    await replaceWith(user, field, "1 7/16 in");
    expect(onType).toHaveBeenLastCalledWith("1 7/16 in");
    expect(onKeep).not.toHaveBeenCalled();
    await user.keyboard("{Enter}");
    expect(onKeep).toHaveBeenCalledExactlyOnceWith("1 7/16 in");
    expect(onNext).toHaveBeenCalledOnce();
  });

  it("keeps on leaving", async () => {
    const { field, user, onKeep } = setUp();
    await replaceWith(user, field, "20");
    await user.click(screen.getByText("elsewhere"));
    expect(onKeep).toHaveBeenCalledExactlyOnceWith("20");
  });

  it("puts back what is kept on Escape, though the preview has become what would be shown", async () => {
    const on = { onType: vi.fn(), onKeep: vi.fn(), onCancel: vi.fn() };
    const field = (exact: string) => (
      <QuantityField label="Step" shown={exact} exact={exact} isText {...on} />
    );
    const { rerender } = render(field("84 h7 x 40"));
    const user = userEvent.setup();
    const input = screen.getByLabelText<HTMLInputElement>("Step");
    await replaceWith(user, input, "90 x 40");
    rerender(field("90 x 40"));
    await user.keyboard("{Escape}");
    expect(input.value).toBe("84 h7 x 40");
    expect(on.onCancel).toHaveBeenCalledOnce();
  });

  it("has all of it selected after the click that enters, so that typing replaces it", async () => {
    const { field, user } = setUp();
    await user.click(field);
    expect(field.selectionEnd).toBe(field.value.length);
    expect(field.selectionStart).toBe(0);
  });

  it("puts back what was there on Escape", async () => {
    const { field, user, onKeep, onCancel } = setUp();
    await replaceWith(user, field, "99");
    await user.keyboard("{Escape}");
    expect(field.value).toBe("22.0000004");
    expect(onCancel).toHaveBeenCalled();
    await user.click(screen.getByText("elsewhere"));
    expect(onKeep).not.toHaveBeenCalled();
  });

  it("keeps showing an entry that was refused or not sent", async () => {
    const { field, user, onKeep } = setUp({ waiting: "abc", isInvalid: true });
    expect(field.value).toBe("abc");
    expect(field).toHaveAttribute("aria-invalid", "true");
    await user.click(field);
    await user.click(screen.getByText("elsewhere"));
    expect(field.value).toBe("abc");
    expect(onKeep).not.toHaveBeenCalled();
  });
});

import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it } from "vitest";
import { Divider, useShare } from "./Divider";

function Stop({ name, begins }: { name: string; begins: number }) {
  const [share, setShare] = useShare(name);
  return <Divider share={share ?? begins} onShare={setShare} />;
}

describe("Divider", () => {
  beforeEach(() => localStorage.clear());

  it("is moved by the arrow keys and remembered, each stop by itself", async () => {
    const user = userEvent.setup();
    const { unmount } = render(<Stop name="hold" begins={54} />);
    const line = () => screen.getByRole("separator", { name: "Height of the picture" });
    expect(line()).toHaveAttribute("aria-valuenow", "54");
    await user.tab();
    await user.keyboard("{ArrowDown}{ArrowDown}{ArrowUp}");
    expect(line()).toHaveAttribute("aria-valuenow", "56");
    unmount();
    render(<Stop name="hold" begins={54} />);
    expect(line()).toHaveAttribute("aria-valuenow", "56");
    render(<Stop name="cuts" begins={42} />);
    expect(screen.getAllByRole("separator")[1]).toHaveAttribute("aria-valuenow", "42");
  });

  it("leaves both sides some room, and takes nothing that it cannot read", async () => {
    localStorage.setItem("noble-anvil-share", '{"hold": 900, "jaws": "x"}');
    const user = userEvent.setup();
    render(<Stop name="hold" begins={79} />);
    await user.tab();
    await user.keyboard("{ArrowDown}{ArrowDown}{ArrowDown}");
    expect(screen.getByRole("separator")).toHaveAttribute("aria-valuenow", "80");
    localStorage.setItem("noble-anvil-share", "no json");
    render(<Stop name="jaws" begins={54} />);
    expect(screen.getAllByRole("separator")[1]).toHaveAttribute("aria-valuenow", "54");
  });
});

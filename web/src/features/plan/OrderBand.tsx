import { useEffect, useRef } from "react";
import { mergeProps, useKeyboard, useMove } from "react-aria";
import styled from "styled-components";
import type { Picture } from "../../api/client";
import { colour, face, size, space, type } from "../../shared/ui/theme";

type Lane = NonNullable<Picture["lanes"]>[number];
type Block = Lane["blocks"][number] & { path: string };

const Side = styled.ol`
  display: flex;
  gap: 2px;
  margin: ${space(1)} 0 ${space(3)};
  padding: 0;
  list-style: none;
  li {
    min-width: 3.2rem;
  }
`;

const Piece = styled.button`
  width: 100%;
  height: 100%;
  min-height: ${size.touch};
  padding: ${space(1)};
  overflow: hidden;
  text-overflow: ellipsis;
  color: ${colour("ink")};
  background: ${colour("partFill")};
  border: ${size.line} solid ${colour("ink")};
  border-radius: ${size.radius};
  font: 400 ${type.small}/1.15 ${face.narrow};
  touch-action: none;
  &[data-may-move] {
    cursor: grab;
  }
`;

const Words = styled.p`
  font: 400 ${type.label}/1.35 ${face.narrow};
  color: ${colour("soft")};
`;

type Props = {
  picture: Picture;
  /** Where nothing may be moved, the order is only told. */
  onMove: ((path: string, behind: string) => void) | null;
};

const isOperation = (block: Lane["blocks"][number]): block is Block => Boolean(block.path);
const idOf = (path: string) => path.split(".").at(-1) ?? "";
const listOf = (path: string) => path.split(".").slice(0, -1).join(".");

/** All operations by side, as wide as they take: dragged, or moved by the arrows, to another place of their side. */
export function OrderBand({ picture, onMove }: Props) {
  const band = useRef<HTMLElement>(null);
  const held = useRef("");
  // An element that is put elsewhere loses the focus: whoever moves on by keys keeps it.
  useEffect(() => {
    if (picture && held.current && document.activeElement === document.body)
      band.current?.querySelector<HTMLElement>(`[data-path="${held.current}"]`)?.focus();
  }, [picture]);
  const sides = new Map<string, Block[]>();
  const operations = (picture.lanes ?? []).flatMap((lane) => lane.blocks.filter(isOperation));
  for (const block of operations) {
    const side = sides.get(listOf(block.path)) ?? [];
    if (!side.some((b) => b.path === block.path)) side.push(block);
    sides.set(listOf(block.path), side);
  }
  return (
    <section ref={band} aria-label="Order">
      <Words>
        In the order they happen, as wide as they take.
        {onMove && " Drag one to another place, or move it by the arrow keys."}
      </Words>
      {[...sides].map(([list, blocks]) => (
        <Side key={list}>
          {blocks.map((block, place) => (
            <Operation
              key={block.path}
              block={block}
              onMove={
                onMove &&
                ((by) => {
                  const to = Math.min(blocks.length - 1, Math.max(0, place + by));
                  if (to === place) return;
                  const behind = to > place ? blocks[to] : blocks[to - 1];
                  held.current = block.path;
                  onMove(block.path, behind ? idOf(behind.path) : "");
                })
              }
            />
          ))}
        </Side>
      ))}
    </section>
  );
}

type OperationProps = { block: Block; onMove: ((by: number) => void) | null };

function Operation({ block, onMove }: OperationProps) {
  const piece = useRef<HTMLLIElement>(null);
  const moved = useRef(0);
  const { moveProps } = useMove({
    onMoveStart: () => {
      moved.current = 0;
    },
    onMove: ({ deltaX, pointerType }) => {
      if (pointerType === "keyboard") return;
      moved.current += deltaX;
      if (piece.current) piece.current.style.transform = `translateX(${moved.current}px)`;
    },
    onMoveEnd: ({ pointerType }) => {
      const mine = piece.current;
      if (pointerType === "keyboard" || !mine) return;
      const middle = mine.getBoundingClientRect().x + mine.offsetWidth / 2;
      mine.style.transform = "";
      const all = [...(mine.parentElement?.children ?? [])];
      const others = all.filter((one) => one !== mine).map((one) => one.getBoundingClientRect());
      const before = others.filter((box) => box.x + box.width / 2 < middle).length;
      onMove?.(before - all.indexOf(mine));
    },
  });
  const { keyboardProps } = useKeyboard({
    onKeyDown: (event) => {
      if (event.key === "ArrowLeft") onMove?.(-1);
      else if (event.key === "ArrowRight") onMove?.(1);
      else event.continuePropagation();
    },
  });
  return (
    <li ref={piece} style={{ flex: `${Math.max(1, block.seconds)} 1 0` }}>
      <Piece
        type="button"
        data-path={block.path}
        {...(onMove ? mergeProps(moveProps, keyboardProps) : {})}
        data-may-move={onMove ? true : undefined}
        title={`${block.label}: ${block.text}`}
      >
        {block.label}
      </Piece>
    </li>
  );
}

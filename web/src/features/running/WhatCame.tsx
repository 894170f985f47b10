import { NoteBox } from "../../shared/ui/NoteBox";
import { Hand, Soft, Wrong } from "./hand";
import type { Came } from "./queries";

type Props = { came: Came; isElsewhere: boolean; onSure: () => void };

/** What came of what was done last. */
export function WhatCame({ came, isElsewhere, onSure }: Props) {
  if (came.kind === "waits") return null;
  if (came.kind === "asked")
    return (
      <>
        <NoteBox level="caution">{came.words}</NoteBox>
        <Hand onClick={onSure}>Yes, that is right. Keep it</Hand>
      </>
    );
  if (came.kind === "wrong") return isElsewhere ? <Wrong role="alert">{came.words}</Wrong> : null;
  return (
    <div role="status">
      {came.piece !== null && <Soft>Piece {came.piece} is kept.</Soft>}
      {came.level === "stop" ? (
        <NoteBox level="stop">{came.told.join(" ")}</NoteBox>
      ) : (
        came.told.map((t) => <Soft key={t}>{t}</Soft>)
      )}
    </div>
  );
}

import { useEffect, useState } from "react";
import { Form } from "react-aria-components";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import { fieldErrors, type Item, type KindName, Refused, said, type Units } from "../../api/client";
import { Blank } from "../../shared/ui/Page";
import { colour, fold, size, space, type } from "../../shared/ui/theme";
import { ChuckPart } from "./ChuckPart";
import { ItemFields } from "./ItemFields";
import { ItemSlip } from "./ItemSlip";
import { LifePart } from "./LifePart";
import {
  type Edits,
  type Entry,
  NO_EDITS,
  previewItem,
  useEffectsOf,
  useItem,
  useKeepItem,
  useRemoveItem,
} from "./queries";
import { ReadingsPart } from "./ReadingsPart";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${size.slip};
  min-height: 0;
  @media ${fold.tablet} {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
  }
`;

const Middle = styled.div`
  padding: ${space(4)} ${space(5)} ${space(12)};
  overflow: auto;
  h2 {
    margin-bottom: ${space(4)};
    font-size: ${type.run};
    font-weight: 600;
    color: ${colour("ink")};
  }
`;

const PAUSE_MS = 250;

/** The item as it would be with what is typed; the last good answer while something is on its way. */
function usePreview(kind: KindName, key: string | null, edits: Edits, units: Units): Item | null {
  const [seen, setSeen] = useState<Item | null>(null);
  const isTyped = Object.keys(edits.fields).length > 0 || edits.chart !== null;
  useEffect(() => {
    if (!isTyped) return;
    const controller = new AbortController();
    const timer = setTimeout(() => {
      previewItem(kind, key, edits, units, controller.signal)
        .then(setSeen)
        .catch(() => {}); // what is typed stays; keeping it tells what is wrong
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      controller.abort();
    };
  }, [kind, key, edits, units, isTyped]);
  return isTyped && seen?.units === units ? seen : null;
}

type Props = { kind: KindName; itemKey: string | null; units: Units };

/** One item of the shelf, to look at and to change. */
export function ItemPage({ kind, itemKey, units }: Props) {
  const query = useItem(kind, itemKey, units);
  const [edits, setEdits] = useState<Edits>(NO_EDITS);
  const keep = useKeepItem();
  const remove = useRemoveItem();
  const navigate = useNavigate();
  const preview = usePreview(kind, itemKey, edits, units);
  // Asked once what is typed has been read, so not at every key.
  const effects = useEffectsOf(kind, itemKey, edits, units, preview !== null && preview.errors.length === 0);
  const kept = query.data;
  const name = kept?.fields[0]?.text || "";
  useEffect(() => {
    document.title = `${name || "Shelf"} · Noble Anvil`;
  }, [name]);
  if (query.isError)
    return (
      <Blank>{query.error instanceof Refused ? query.error.message : "The server does not answer."}</Blank>
    );
  if (!kept) return <Blank>Opening …</Blank>;

  const isNew = itemKey === null;
  const shown = preview ?? kept;
  const isChanged =
    Object.keys(edits.fields).length > 0 || edits.chart !== null || edits.confirmed.length > 0;
  const refused = fieldErrors(keep.error);
  const typedErrors = Object.fromEntries(
    (preview?.errors ?? []).filter((e) => e.field !== "chart").map((e) => [e.field, e.message]),
  );
  const chartErrors = [
    ...(preview?.errors ?? []).filter((e) => e.field === "chart").map((e) => e.message),
    ...(preview === null && refused.chart ? [refused.chart] : []),
  ];
  const conflict = keep.error instanceof Refused && keep.error.status === 409 ? keep.error.problem : null;
  const errors = { ...(preview === null || keep.isError ? refused : {}), ...typedErrors };

  function entry(field: string, value: Entry | null) {
    if (keep.isError) keep.reset();
    setEdits((all) => {
      const others = Object.entries(all.fields).filter(([name]) => name !== field);
      return { ...all, fields: Object.fromEntries(value === null ? others : [...others, [field, value]]) };
    });
  }

  function leave() {
    setEdits(NO_EDITS);
    keep.reset();
  }

  function send(base: number) {
    keep.mutate(
      { kind, key: itemKey, edits, base, units },
      {
        onSuccess: (item) => {
          setEdits(NO_EDITS);
          if (isNew) void navigate(`/shelf/${kind}/${item.key}`);
        },
      },
    );
  }

  const told = conflict
    ? [
        `${conflict.title} Theirs: ${String(conflict.theirs)}. Yours: ${String(conflict.yours)}.`,
        "Keep again to put yours in its place, or put back.",
      ].join(" ")
    : keep.error && Object.keys(refused).length > 0
      ? "Some entries need another look; each says why."
      : keep.error || remove.error
        ? said(keep.error ?? remove.error)
        : keep.isSuccess && !isChanged
          ? "Kept."
          : "";
  return (
    <Page>
      <Middle>
        <h2>{isNew ? `A new ${kept.noun}` : name}</h2>
        {!isNew && kind === "chuck" && kept.key && (
          <p>
            <Link to={`/chucks/${kept.key}/gauge`}>Measured grip, gauge runs and greasing</Link>
          </p>
        )}
        {!isNew && kept.life && <LifePart item={kept} units={units} />}
        {!isNew && <ReadingsPart kind={kept.kind} itemKey={kept.key} units={units} />}
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            // Enter goes to the next field; keeping is said with its own button, after seeing what moves.
          }}
        >
          {shown.chart && (
            <ChuckPart
              chart={shown.chart}
              text={edits.chart}
              mayEdit={kept.may_edit}
              errors={chartErrors}
              onType={(text) =>
                setEdits((all) => ({ ...all, chart: text === kept.chart?.text ? null : text }))
              }
            />
          )}
          <ItemFields
            fields={kept.fields}
            edits={edits}
            mayEdit={kept.may_edit}
            errors={errors}
            onEntry={entry}
            onConfirm={(field) => setEdits((all) => ({ ...all, confirmed: [...all.confirmed, field] }))}
          />
        </Form>
      </Middle>
      <ItemSlip
        item={{ ...shown, runs: kept.runs, changes: kept.changes }}
        effects={effects.data}
        isLate={effects.isFetching}
        isNew={isNew}
        isChanged={isChanged}
        isBusy={keep.isPending}
        told={told}
        toldWrong={keep.isError || remove.isError}
        onKeep={() => {
          // After a conflict was seen, keeping again rests on what is there now.
          if (conflict) void query.refetch().then((fresh) => send(fresh.data?.revision ?? kept.revision));
          else send(kept.revision);
        }}
        onLeave={leave}
        onRemove={() =>
          itemKey !== null &&
          remove.mutate({ kind, key: itemKey }, { onSuccess: () => void navigate(`/shelf/${kind}`) })
        }
      />
    </Page>
  );
}

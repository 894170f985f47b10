import { useDeferredValue, useEffect, useState } from "react";
import {
  Autocomplete,
  Dialog,
  Input,
  Menu,
  MenuItem,
  Modal,
  ModalOverlay,
  SearchField,
} from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import type { Hit } from "../../api/client";
import { type LocalHit, useOffered } from "../../shared/find/LocalHits";
import { keyPressed } from "../../shared/keys";
import { Button } from "../../shared/ui/Button";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { useFind } from "./queries";

const Cover = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 10;
  background: ${colour("cover")};
`;

const Box = styled(Modal)`
  width: min(560px, calc(100% - 24px));
  margin: 72px auto 0;
  background: ${colour("card")};
  border: ${size.line} solid ${colour("ink")};
  box-shadow: 0 4px 14px ${colour("shade")};
  [role="dialog"] {
    outline: none;
  }
  input {
    width: 100%;
    height: 48px;
    padding: 0 ${space(4)};
    background: transparent;
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    font-size: ${type.run};
    outline-offset: -3px;
  }
  input::-webkit-search-cancel-button {
    display: none;
  }
`;

const List = styled(Menu)`
  max-height: 50vh;
  overflow: auto;
  outline: none;
`;

const Row = styled(MenuItem)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: ${space(4)};
  padding: ${space(2)} ${space(4)};
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${colour("sheet")};
    box-shadow: inset 3px 0 0 ${colour("act")};
  }
  span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  span:last-child {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Key = styled.kbd`
  color: ${colour("soft")};
  @media ${fold.phone} {
    display: none;
  }
`;

const Empty = styled.p`
  padding: ${space(3)} ${space(4)};
  color: ${colour("soft")};
`;

const MOST = 8;

function target(hit: Hit): LocalHit {
  const inPlan = hit.kind === "run" || hit.kind === "fact";
  const to = inPlan ? `/runs/${hit.key}` : `/shelf/${hit.kind}/${hit.key}`;
  return {
    key: `${hit.kind} ${hit.key}`,
    title: hit.title,
    detail: hit.detail,
    to,
  };
}

/** Local hits with every one of the words, those that begin with the first word foremost. */
export function matching(hits: readonly LocalHit[], words: string): LocalHit[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const [first] = wanted;
  if (first === undefined) return [];
  const found = hits.filter((h) => wanted.every((w) => `${h.title} ${h.detail}`.toLowerCase().includes(w)));
  const begins = (h: LocalHit) => h.title.toLowerCase().startsWith(first);
  return [...found.filter(begins), ...found.filter((h) => !begins(h))].slice(0, MOST);
}

function Found({ onDone }: { onDone: () => void }) {
  const [words, setWords] = useState("");
  const asked = useDeferredValue(words);
  const { hits, plan } = useOffered();
  const remote = useFind(asked, plan);
  const local = matching(hits, words);
  const navigate = useNavigate();
  const rows = words.trim() ? [...local, ...(remote.data ?? []).map(target)] : [];
  return (
    <Autocomplete inputValue={words} onInputChange={setWords}>
      <SearchField aria-label="Find a stop, a fact, a run or something on the shelf" autoFocus>
        <Input placeholder="A stop, a fact, a run, a chuck …" />
      </SearchField>
      <List
        aria-label="Found"
        onAction={(key) => {
          const row = rows.find((r) => r.key === key);
          if (row) void navigate(row.to);
          onDone();
        }}
        renderEmptyState={() => (
          <Empty>
            {words.trim()
              ? remote.isFetching
                ? "Looking …"
                : "Nothing here has all of these words."
              : "Write any word of it."}
          </Empty>
        )}
      >
        {rows.map((row) => (
          <Row key={row.key} id={row.key} textValue={`${row.title} ${row.detail}`}>
            <span>{row.title}</span>
            <span>{row.detail}</span>
          </Row>
        ))}
      </List>
    </Autocomplete>
  );
}

/** Find anything: `/` opens it, Enter goes there. */
export function FindBox() {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (keyPressed(event) !== "/") return;
      event.preventDefault();
      setOpen(true);
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <Button onPress={() => setOpen(true)} aria-label="Find anything">
        Find <Key>/</Key>
      </Button>
      <Cover isOpen={isOpen} onOpenChange={setOpen} isDismissable>
        <Box>
          <Dialog aria-label="Find">
            <Found onDone={() => setOpen(false)} />
          </Dialog>
        </Box>
      </Cover>
    </>
  );
}

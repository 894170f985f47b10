import type { ReactNode } from "react";
import { Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { Button } from "./Button";
import { colour, size, space, type } from "./theme";

const Cover = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 10;
  display: grid;
  place-items: center;
  background: ${colour("cover")};
`;

const Box = styled(Modal)`
  width: min(560px, calc(100% - 32px));
  max-height: calc(100% - 32px);
  overflow: auto;
  padding: ${space(6)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("ink")};
  [role="dialog"] {
    outline: none;
  }
  h2 {
    margin-bottom: ${space(4)};
    font-size: ${type.run};
  }
`;

const Foot = styled.div`
  margin-top: ${space(4)};
`;

type Props = {
  title: string;
  isOpen: boolean;
  onClose: () => void;
  closeLabel?: string;
  children: ReactNode;
};

/** A sheet laid over the page, to read and put away. */
export function Sheet({ title, isOpen, onClose, closeLabel = "Close", children }: Props) {
  return (
    <Cover isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Box>
        <Dialog>
          <Heading slot="title" level={2}>
            {title}
          </Heading>
          {children}
          <Foot>
            <Button onPress={onClose}>{closeLabel}</Button>
          </Foot>
        </Dialog>
      </Box>
    </Cover>
  );
}

import type { ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { useLocation } from "react-router";
import styled from "styled-components";
import { Button } from "./Button";
import { face, space, type } from "./theme";

const Said = styled.div`
  display: grid;
  gap: ${space(3)};
  justify-items: start;
  max-width: 36rem;
  margin: ${space(12)} auto;
  padding: 0 ${space(4.5)};
  font: 400 ${type.body}/1.5 ${face.plain};
`;

/** A screen that met what it was not made for says so; another one, or the same once more, can be opened. */
export function Stumbled({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary
      resetKeys={[pathname]}
      onError={reportError}
      fallbackRender={({ resetErrorBoundary }) => (
        <Said role="alert">
          <p>
            This screen met something that it was not made for and cannot be shown. What was kept is kept, and
            what waits in this browser still waits.
          </p>
          <Button onPress={resetErrorBoundary}>Open it again</Button>
          <a href="/">To the bench</a>
        </Said>
      )}
    >
      {children}
    </ErrorBoundary>
  );
}

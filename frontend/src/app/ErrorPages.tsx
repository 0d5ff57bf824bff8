/** Error pages: an unknown address, and an internal error. */
import { Component, type ReactNode } from "react";
import { Link, useLocation } from "react-router";
import { Button, Lead, Verdict } from "../kit";
import { Page } from "../shared/Page";

export function NoSuchPage() {
  const { pathname } = useLocation();
  return (
    <Page>
      <Verdict>There is no page here</Verdict>
      <Lead>
        Nothing answers to <code>{pathname}</code>. The link may be old, or a letter of it lost. Your tanks
        are all on <Link to="/today">Today</Link>.
      </Lead>
    </Page>
  );
}

/** Keyed by the address, so that navigation clears the error. */
export function ErrorBoundary({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  return <Boundary key={pathname.split("/").slice(0, 4).join("/")}>{children}</Boundary>;
}

class Boundary extends Component<{ children: ReactNode }, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render() {
    if (!this.state.error) return this.props.children;
    return (
      <Page>
        <Verdict>This page could not be drawn</Verdict>
        <Lead>
          The fault is ours. Your logbook is safe on the server, and what you typed is kept on this device.
          Draw it again; if it fails once more, go to <Link to="/today">Today</Link> and come back later.
        </Lead>
        <div>
          <Button
            onPress={() => {
              this.setState({ error: null });
            }}
          >
            Draw it again
          </Button>
        </div>
      </Page>
    );
  }
}

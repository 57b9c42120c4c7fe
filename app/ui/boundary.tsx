/** What is shown in place of a screen that could not be fetched, or that failed. */
import { Component, type ReactNode } from 'react';
import { Button, Note, Page } from './pieces';
import { Title } from './text';

interface CatchProps {
  children: ReactNode;
  /** What is shown in place of them once they have failed; `again` shows them anew. */
  instead: (again: () => void) => ReactNode;
}

class Catch extends Component<CatchProps, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    return this.state.failed ? this.props.instead(() => this.setState({ failed: false })) : this.props.children;
  }
}

/**
 * Keeps one screen's failure from leaving an empty page behind. Acts and edits that wait to be sent are kept by the device.
 *
 * @param again  begins anew; by itself that is loading the page again
 */
export function Boundary({
  children,
  again = () => window.location.reload(),
}: {
  children: ReactNode;
  again?: () => void;
}) {
  return (
    <Catch
      instead={() => (
        <Page max={560}>
          <Title>This page could not be shown</Title>
          <Note
            tone="warn"
            title="Check your connection and try again. What you signed or placed is saved."
            testID="not-shown"
            action={
              <Button kind="main" onPress={again} style={{ alignSelf: 'flex-start' }} testID="show-again">
                Try again
              </Button>
            }
          />
        </Page>
      )}
    >
      {children}
    </Catch>
  );
}

/** Keeps the failure of one part of a screen from taking the rest with it. */
export function Part({ children, name }: { children: ReactNode; name: string }) {
  return (
    <Catch
      instead={(again) => (
        <Note
          tone="warn"
          title={`“${name}” cannot be shown right now. Everything else still works, and what you did is saved.`}
          testID="part-not-shown"
          action={
            <Button kind="quiet" onPress={again} style={{ alignSelf: 'flex-start' }} testID="show-part-again">
              Show it again
            </Button>
          }
        />
      )}
    >
      {children}
    </Catch>
  );
}

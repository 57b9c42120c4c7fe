/** What is shown in place of a screen that could not be fetched, or that failed. */
import { Component, type ReactNode } from 'react';
import { Button, Note, Page } from './pieces';
import { Title } from './text';
import { TEXT } from './words';

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
          <Title>{TEXT.thisPageCouldNotBe}</Title>
          <Note
            tone="warn"
            title={TEXT.checkYourConnectionAndTry}
            testID="not-shown"
            action={
              <Button kind="main" onPress={again} fit testID="show-again">
                {TEXT.tryAgain}
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
          title={TEXT.cannotBeShownRightNow(name)}
          testID="part-not-shown"
          action={
            <Button kind="quiet" onPress={again} fit testID="show-part-again">
              {TEXT.showItAgain}
            </Button>
          }
        />
      )}
    >
      {children}
    </Catch>
  );
}

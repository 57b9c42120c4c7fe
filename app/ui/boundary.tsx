/** What is shown instead of a screen that could not be loaded, or that failed. */
import { Component, type ReactNode } from 'react';
import { Button, Note, Page } from './pieces';
import { Title } from './text';
import { TEXT } from './words';

interface CatchProps {
  children: ReactNode;
  /** What is shown instead of failed children; `again` renders them again. */
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
 * Shows an error instead of an empty page if a screen fails. Acts and edits that wait to be sent are saved on the
 * device.
 *
 * @param again  starts again; by default it reloads the page
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

/** Shows an error instead of one part of a screen that fails; the rest stays. */
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

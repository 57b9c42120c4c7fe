/** What is shown in place of a screen that could not be fetched, or that failed. */
import { Component, type ReactNode } from 'react';
import { Button, Note, Page } from './pieces';
import { Title } from './text';

interface Props {
  children: ReactNode;
  /** Begins anew; by itself that is loading the page again. */
  again?: () => void;
}

/** Keeps one screen's failure from leaving an empty page behind. Acts and edits that wait to be sent are kept by the device. */
export class Boundary extends Component<Props, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <Page max={560}>
        <Title>This page could not be shown</Title>
        <Note
          tone="warn"
          title="Check the connection and try again. What you signed or placed is kept."
          testID="not-shown"
          action={
            <Button
              kind="main"
              onPress={this.props.again ?? (() => window.location.reload())}
              style={{ alignSelf: 'flex-start' }}
              testID="show-again"
            >
              Try again
            </Button>
          }
        />
      </Page>
    );
  }
}

/** Keeps the failure of one part of a screen from taking the rest with it. */
export class Part extends Component<{ children: ReactNode; name: string }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <Note
        tone="warn"
        title={`“${this.props.name}” cannot be shown just now. The rest goes on working, and what you did is kept.`}
        testID="part-not-shown"
        action={
          <Button
            kind="quiet"
            onPress={() => this.setState({ failed: false })}
            style={{ alignSelf: 'flex-start' }}
            testID="show-part-again"
          >
            Show it again
          </Button>
        }
      />
    );
  }
}

import { t } from '@mailbag/core/words';
import { Component, type ReactNode } from 'react';
import { Button } from './button';
import { Empty } from './layout';

interface Props {
  /** What it is that could not be shown, as in “This screen”. */
  what: string;
  /** Another one is another thing, which is tried afresh. */
  name: string;
  children: ReactNode;
}

/** What fails inside is told in its place, with a way to try again; everything around it stays. */
export class Boundary extends Component<Props, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error): { error: Error } {
    return { error };
  }

  override componentDidUpdate({ name }: Props): void {
    if (name !== this.props.name && this.state.error) this.setState({ error: null });
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    const isMissing = /dynamically imported module|Importing a module|Loading chunk|load module script/i.test(error.message);
    return (
      <Empty
        title={t`${this.props.what} could not be ${isMissing ? t`loaded` : t`shown`}`}
        action={
          <span style={{ display: 'inline-flex', gap: 8 }}>
            <Button look="go" onPress={() => this.setState({ error: null })}>{t`Try again`}</Button>
            <Button onPress={() => window.location.reload()}>{t`Reload Mailbag`}</Button>
          </span>
        }
      >
        {isMissing
          ? t`A part of Mailbag could not be loaded: the server may be away, or it has been updated since this page was opened. What you have typed is kept.`
          : t`Something went wrong here (${error.message}). What you have typed is kept, and everything else still works.`}
      </Empty>
    );
  }
}

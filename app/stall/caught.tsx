import { Component, type ReactNode } from 'react';
import { PageError } from '@/ui/road/page-error';

/** Says so where the Stall could not be drawn, and draws it anew when asked: what it holds is of the page and stands. */
export class Caught extends Component<{ children: ReactNode }, { error: Error | null }> {
  override state = { error: null as Error | null };
  static getDerivedStateFromError(error: Error) {
    return { error };
  }
  override render() {
    const { error } = this.state;
    return error ? <PageError error={error} reset={() => this.setState({ error: null })} /> : this.props.children;
  }
}

import { asLithagonError } from '@lithagon/core/kept';
import { Component, type ReactNode } from 'react';
import css from './Boundary.module.css';
import { Button } from './Button';

interface Props {
  /** What it is that could not be drawn, as a subject: “The map”. */
  what: string;
  /** What can be done about it, with its words. */
  remedies?: { label: string; act(): void }[];
  children: ReactNode;
}

/** Keeps an error in one part of the page from taking the rest with it: says what happened, and offers a way on. */
export class Boundary extends Component<Props, { problem: unknown }> {
  override state: { problem: unknown } = { problem: null };

  static getDerivedStateFromError(problem: unknown) {
    return { problem };
  }

  override render() {
    const { what, remedies = [], children } = this.props;
    const { problem } = this.state;
    if (problem === null) return children;
    const again = () => this.setState({ problem: null });
    return (
      <div className={css.problem} role="alert">
        <p>
          <b>{what} could not be drawn.</b> Nothing of the project was changed by it.
        </p>
        <p className={css.why}>{asLithagonError(problem).message}</p>
        <p className={css.ways}>
          <Button small main onClick={again}>
            Draw it again
          </Button>
          {remedies.map(({ label, act }) => (
            <Button
              key={label}
              small
              onClick={() => {
                act();
                again();
              }}
            >
              {label}
            </Button>
          ))}
        </p>
      </div>
    );
  }
}

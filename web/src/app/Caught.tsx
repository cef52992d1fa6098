import { Component, type ReactNode } from "react";
import styled from "styled-components";
import { TextButton } from "../parts/Button";
import { ink } from "../look/tokens";

type Props = { what: string; children: ReactNode };
type State = { error: Error | null };

/** What can't be drawn is said in its place; all that stands around it goes on working. */
export class Caught extends Component<Props, State> {
  override state: State = { error: null };

  static getDerivedStateFromError(error: Error): State {
    return { error };
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <Said role="alert">
        {this.props.what} could not be shown: {error.message} Everything that was entered is kept.{" "}
        <TextButton onPress={() => window.location.reload()}>open the page again</TextButton>
      </Said>
    );
  }
}

const Said = styled.p`
  padding: 32px;
  max-width: 72ch;
  color: ${ink.ink2};
`;

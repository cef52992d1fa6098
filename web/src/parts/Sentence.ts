import styled from "styled-components";

/** A paragraph that holds choices: these are made of blocks, which no browser leaves in a `p`. */
export const Sentence = styled.div.attrs({ role: "paragraph" })``;

import { createGlobalStyle } from "styled-components";
import { declared, lamp, paper } from "./inks";
import { ink, sans, serif } from "./tokens";

export const GlobalStyle = createGlobalStyle`
  :root { color-scheme: light; ${declared(paper)} }
  :root[data-ink="lamp"] { color-scheme: dark; ${declared(lamp)} }
  *, *::before, *::after { box-sizing: border-box; }
  html { font-size: 13.5px; }
  body {
    margin: 0; background: ${ink.paper}; color: ${ink.ink};
    font-family: ${sans}; line-height: 1.4; font-variant-numeric: tabular-nums;
    -webkit-font-smoothing: antialiased;
  }
  #root { height: 100vh; }
  h1, h2, h3 { font-family: ${serif}; font-weight: 600; line-height: 1.2; margin: 0; }
  h1 { font-size: 28px; }
  h2 { font-size: 20px; }
  h3 { font-size: 16px; }
  p { margin: 0; }
  button, input, select, textarea { font: inherit; color: inherit; }
  :focus-visible { outline: 2px solid ${ink.petal}; outline-offset: 1px; }
  .unseen {
    position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%);
    white-space: nowrap;
  }
  kbd {
    font: inherit; font-size: 12px; border: 1px solid ${ink.rule}; border-radius: 2px;
    padding: 0 5px; background: ${ink.paper}; white-space: nowrap;
  }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; }
  }
  /* where the system's own few colours are forced, what a ground told is told by theirs */
  @media (forced-colors: active) {
    button[data-selected], button[aria-pressed="true"], a[aria-current="page"] {
      forced-color-adjust: none; background: Highlight; color: HighlightText;
    }
    a[aria-current="page"] * { color: HighlightText; }
    i:empty { forced-color-adjust: none; background: CanvasText !important; }
    u:empty { forced-color-adjust: none; background: Highlight !important; }
    [role="row"][data-active], [role="row"][aria-selected="true"] {
      outline: 2px solid Highlight; outline-offset: -2px;
    }
  }
`;

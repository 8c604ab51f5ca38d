import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource/atkinson-hyperlegible-mono/400.css';
import '@fontsource/atkinson-hyperlegible-mono/600.css';
import '@fontsource/fraunces/600.css';
import { createGlobalStyle, css } from 'styled-components';
import { DAY, FONT_MONO, FONT_TEXT, NIGHT, TOKEN_NAMES, type Tokens } from './tokens.ts';

function variables(tokens: Tokens) {
  return TOKEN_NAMES.map((name) => `--${name}: ${tokens[name]};`).join('\n');
}

const day = css`
  ${variables(DAY)}
  color-scheme: light;
`;

export const GlobalStyle = createGlobalStyle`
  :root {
    ${variables(NIGHT)}
    --text: ${FONT_TEXT};
    --mono: ${FONT_MONO};
    --title: 'Fraunces', Georgia, serif;
    color-scheme: dark;
    font-size: 81.25%;
  }
  @media (prefers-color-scheme: light) {
    :root:not([data-theme='night']) { ${day} }
  }
  :root[data-theme='day'] { ${day} }

  *, *::before, *::after { box-sizing: border-box; }
  * { scrollbar-color: var(--line2) transparent; scrollbar-width: thin; }
  html, body, #root { height: 100%; margin: 0; }
  body {
    background: var(--night);
    color: var(--bone);
    font: 400 1rem/1.4 var(--text);
    -webkit-font-smoothing: antialiased;
  }
  h1, h2, h3, p { margin: 0; font-weight: inherit; font-size: inherit; }
  ul, ol { margin: 0; padding: 0; list-style: none; }
  button, input, select, textarea { font: inherit; color: inherit; }
  a { color: var(--sight); }
  :focus-visible, [data-focus-visible] { outline: 2px solid var(--sight); outline-offset: 1px; }
  /* What opens over the page shows where it is itself; inside, what has the focus is marked. */
  [role='dialog'], [role='menu'], [role='listbox'] { outline: none !important; }
  .visually-hidden {
    position: absolute; width: 1px; height: 1px; overflow: hidden;
    clip-path: inset(50%); white-space: nowrap;
  }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { transition: none !important; animation: none !important; }
  }
`;

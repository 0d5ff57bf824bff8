/** Colour tokens and typefaces. */
import { createGlobalStyle } from "styled-components";

const light = `
  --paper: #f3f4ef; --silt: #e8ebe3; --silt-deep: #d5dbd0; --line: #b9c2b8; --field: #fdfdfa;
  --ink: #14262a; --ink-soft: #46575a; --water: #1d646b; --water-fill: #bfdad8; --water-deep: #93bcbc;
  --reed: #4b6a2f; --reed-fill: #c6d6b8; --seed: #7a3d18; --seed-fill: #e6d3bf; --alarm: #9b2318; --alarm-fill: #f2d8d1;
  --wood: #cbb48c; --wood-line: #8d7447; --sand: #c9b085; --stone: #a8a49b; --band: #93bcbc; --on-ink: #f6f7f2; --shade: rgb(20 38 42 / 0.16);
`;
const dark = `
  --paper: #111a1b; --silt: #1a2627; --silt-deep: #263534; --line: #3d4f4d; --field: #0c1415;
  --ink: #e9ede4; --ink-soft: #a8b8b1; --water: #86c6c6; --water-fill: #1f4a4d; --water-deep: #17393d;
  --reed: #a5c283; --reed-fill: #33482a; --seed: #e5a672; --seed-fill: #4a3220; --alarm: #ff9a88; --alarm-fill: #4b231d;
  --wood: #5d4f36; --wood-line: #927b51; --sand: #6b5c3f; --stone: #6d6b66; --band: #2f7177; --on-ink: #111a1b; --shade: rgb(0 0 0 / 0.5);
`;

export const GlobalStyle = createGlobalStyle`
  :root { ${light} color-scheme: light; }
  @media (prefers-color-scheme: dark) { :root:not([data-theme="light"]) { ${dark} color-scheme: dark; } }
  :root[data-theme="dark"] { ${dark} color-scheme: dark; }
  *, *::before, *::after { box-sizing: border-box; }
  body {
    margin: 0; background: var(--paper); color: var(--ink);
    font: 400 1rem/1.45 "Source Sans 3", sans-serif; font-variant-numeric: tabular-nums lining-nums;
  }
  h1, h2, h3, p, ul, ol, dl, dd, figure { margin: 0; padding: 0; }
  h1 { font: 600 1.875rem/1.16 Vollkorn, serif; text-wrap: balance; }
  h2 { font: 600 1.0625rem/1.3 "Source Sans 3", sans-serif; }
  h3 { font: 600 1rem/1.3 "Source Sans 3", sans-serif; }
  ul, ol { list-style: none; }
  summary { min-height: 30px; cursor: pointer; }
  button, input, textarea { font: inherit; color: inherit; }
  a { color: var(--water); }
  :focus-visible, [data-focus-visible] { outline: 3px solid var(--seed); outline-offset: 2px; border-radius: 3px; }
  @media (max-width: 45em) { h1 { font-size: 1.5rem; } }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { animation: none !important; transition: none !important; } }
  @media screen { .print-only { display: none !important; } }
  /* States that are told by a fill or a colour are told by an outline; drawings keep their own colours. */
  @media (forced-colors: active) {
    figure svg, [data-own-colours] { forced-color-adjust: none; background: var(--paper); color: var(--ink); }
    [data-selected], [aria-pressed="true"], [aria-current], [aria-selected="true"], [aria-checked="true"] {
      outline: 3px solid Highlight; outline-offset: -3px;
    }
    [data-disabled], :disabled { color: GrayText; border-color: GrayText; }
    button, [role="button"] { border: 1px solid ButtonBorder; }
    :focus-visible, [data-focus-visible] { outline: 4px double Highlight; outline-offset: 2px; }
  }
  @page { margin: 14mm 14mm 16mm; }
  @media print {
    :root { ${light} }
    body { background: #fff; color: #000; }
    header, .screen-only, details > summary { display: none !important; }
    main { padding: 0 !important; }
    button { text-decoration: none !important; }
  }
`;

export const phone = "@media (max-width: 45em)";
export const narrow = "@media (max-width: 66.25em)";

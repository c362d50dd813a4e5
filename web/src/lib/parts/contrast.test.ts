import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const source = join(import.meta.dirname, '../..');
const css = readFileSync(join(source, 'app.css'), 'utf8');

type Colour = [number, number, number];

const tokensIn = (block: string): Record<string, string> =>
  Object.fromEntries([...block.matchAll(/--([\w-]+): (#[0-9a-f]{6});/g)].map((m) => [m[1]!, m[2]!]));

/** A theme's colours by name: daisyUI's own, and those that are the product's. */
function tokensOf(theme: string, own: RegExp): Record<string, string> {
  const shipped = new RegExp(`name: '${theme}';([^}]*)}`).exec(css)![1]!;
  return { ...tokensIn(shipped), ...tokensIn(own.exec(css)![1]!) };
}

const themes = {
  chalk: tokensOf('chalk', /\n:root {([^}]*)}/),
  slate: tokensOf('slate', /\n\[data-theme='slate'\] {([^}]*)}/),
};

const channels = (hex: string): Colour =>
  [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16)) as Colour;

/** So much of one colour over another, as the eye sees it. */
const over = (top: Colour, below: Colour, share: number): Colour =>
  top.map((c, i) => c * share + below[i]! * (1 - share)) as Colour;

/** Source: WCAG 2.2, relative luminance. */
function luminance(colour: Colour): number {
  const [r, g, b] = colour.map((c) =>
    c / 255 <= 0.04045 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4,
  ) as Colour;
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(a: Colour, b: Colour): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

const text = 4.5;
const shape = 3;
const papers = ['color-base-100', 'color-base-200'];

/** What stands on what, and how far it must be from it. A share: so much of the ground's colour over the page. */
const pairs: { ink: string; ground: string; least: number; share?: number }[] = [
  ...[
    'color-base-content',
    'ink-quiet',
    'color-error',
    'color-secondary',
    'color-info',
    'side-left',
    'side-right',
  ].flatMap((ink) => papers.map((ground) => ({ ink, ground, least: text }))),
  ...['primary', 'secondary', 'accent', 'neutral', 'info', 'success', 'warning', 'error'].map((name) => ({
    ink: `color-${name}-content`,
    ground: `color-${name}`,
    least: text,
  })),
  { ink: 'color-base-100', ground: 'color-base-content', least: text },
  { ink: 'side-content', ground: 'side-left', least: text },
  { ink: 'side-content', ground: 'side-right', least: text },
  { ink: 'color-base-content', ground: 'color-accent', share: 0.4, least: text },
  { ink: 'color-base-content', ground: 'color-base-content', share: 0.25, least: text },
  ...papers.map((ground) => ({ ink: 'measure-mark', ground, least: shape })),
];

describe.each(Object.entries(themes))('the theme %s', (_, tokens) => {
  const colour = (name: string): Colour => channels(tokens[name]!);
  const paper = colour('color-base-100');

  it.each(pairs)('$ink on $ground can be read', ({ ink, ground, least, share }) => {
    const below = share === undefined ? colour(ground) : over(colour(ground), paper, share);
    expect(contrast(colour(ink), below)).toBeGreaterThanOrEqual(least);
  });

  it('shows the edge of a field', () => {
    expect(contrast(over(colour('color-base-content'), paper, 0.58), paper)).toBeGreaterThanOrEqual(shape);
  });
});

it('a screen has no colour that is not looked at here', () => {
  const known = new Set(
    [...pairs.flatMap((p) => [p.ink, p.ground]), 'color-base-300'].map((n) => n.replace(/^(color|ink)-/, '')),
  );
  known.add('left-side').add('right-side').add('on-side');
  const files = readdirSync(source, { recursive: true, encoding: 'utf8' }).filter((f) =>
    f.endsWith('.svelte'),
  );
  const used = files.flatMap((file) =>
    [
      ...readFileSync(join(source, file), 'utf8').matchAll(
        /\b(?:text|bg)-((?:[a-z]+-)*[a-z0-9]+)(?:\/\d+)?(?=["'\s])/g,
      ),
    ]
      .map((m) => m[1]!)
      .filter((name) =>
        /^(base-(100|200|300|content)|primary|secondary|accent|neutral|info|success|warning|error|quiet|left-|right-|on-)/.test(
          name,
        ),
      )
      .map((name) => ({ file, name })),
  );
  expect(used.length).toBeGreaterThan(100);
  expect(used.filter(({ name }) => !known.has(name))).toEqual([]);
});

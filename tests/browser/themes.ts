import type { Page } from '@playwright/test';

/** Puts on a theme, and waits until its colours have arrived: read half-way through, a transition has a contrast of its own. */
export async function wear(page: Page, theme: 'chalk' | 'slate') {
  await page.evaluate((t) => (document.documentElement.dataset.theme = t), theme);
  await page.evaluate(() => Promise.all(document.getAnimations().flatMap((a) => (a instanceof CSSTransition ? [a.finished.catch(() => null)] : []))));
}

import type { BrowserContext } from '@playwright/test';

export const launch: { executablePath: string; args: string[] };
export function signIn(context: BrowserContext, email?: string, password?: string): Promise<void>;

import type { BrowserContext } from '@playwright/test';

export const root: string;
export const server: string;
export const setupCode: string;
export const launch: { executablePath: string; args: string[] };
export function dataFolder(demo: boolean): string;
export function signIn(context: BrowserContext, email?: string, password?: string): Promise<void>;

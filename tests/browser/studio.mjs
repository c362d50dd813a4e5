/** Debian's Chromium, started so that it asks nothing of the network. */
export const launch = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

/** Signs a browser context into the demo studio. */
export async function signIn(context, email = 'imre@saltlamp.example', password = 'lamp-works-owner') {
  const answer = await context.request.post('/api/v1/accounts/sign-in', { data: { email, password } });
  if (!answer.ok()) throw new Error(`sign-in: ${answer.status()}`);
}

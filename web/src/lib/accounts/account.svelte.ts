import { api, ask, signIn, type Schemas } from '$lib/api/client';
import { showIn } from '$lib/parts/format';

/** Who is signed in. */
class Account {
  me = $state<Schemas['MeResponse']>();
  /** The sign-in ended under what is on the screen: in another tab, or the account is gone. */
  ended = $state(false);

  constructor() {
    signIn.stands = (stands) => (this.ended = !stands);
  }

  async load(): Promise<Schemas['MeResponse']> {
    this.me = await ask(api.GET('/api/v1/accounts/me'));
    showIn(this.me.timeZone);
    return this.me;
  }

  /** An assistant reads only. */
  get mayWrite(): boolean {
    return this.me?.user?.role === 'owner' || this.me?.user?.role === 'coach';
  }
}

export const account = new Account();
